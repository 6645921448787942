<script setup lang="ts">
import { coats_ml } from '#core/coverage'
import { materialOf, MATERIALS } from '#core/materials'
import { faceArea_m2, round, sumOf } from '#core/units'

/** How much a pot must hold for an area and its coats. */
const props = defineProps<{ pieceId: number | null }>()
const emit = defineEmits<{ amount: [ml: number] }>()
const area = reactive({ m2: 1, coats: 2, class: 'urethane-2c', film_um: materialOf('urethane-2c').wet_um, loss_ml: 30 })
watch(
  () => area.class,
  c => {
    area.film_um = materialOf(c).wet_um
  },
)
/** The area and finish of the piece that the pot is for. */
watch(
  () => props.pieceId,
  async id => {
    if (!id) return
    const { faces, finish } = await call('GET /api/pieces/:id', { id })
    area.m2 = round(
      sumOf(
        faces.filter(f => f.scope === 'refinish'),
        f => faceArea_m2({ shape: f.shape, length_mm: f.length_mm, width_mm: f.width_mm, count: f.copies }),
      ),
      2,
    )
    if (finish) area.class = finish
  },
)
function workOut() {
  const material = { ...materialOf(area.class), ...(area.film_um ? { wet_um: area.film_um } : {}) }
  emit('amount', Math.ceil(area.loss_ml + coats_ml({ material, area_m2: area.m2, coats: area.coats })))
}
</script>

<template>
  <FoldOut :title="w('mix.fromArea')">
    <div class="grid sm:grid-cols-6 gap-3 items-end">
      <label
        >{{ w('mix.area') }} <input v-model.number="area.m2" type="number" min="0.01" step="any" class="field" /></label
      ><label
        >{{ w('mix.coats') }} <input v-model.number="area.coats" type="number" min="1" max="12" class="field" /></label
      ><FindField v-model="area.class" :label="w('store.class')" :options="namedOptions(MATERIALS)" /><label
        v-if="materialOf(area.class).wet_um"
        >{{ w('mix.film') }}
        <input v-model.number="area.film_um" type="number" min="5" max="500" class="field" /></label
      ><label>{{ w('mix.loss') }} <input v-model.number="area.loss_ml" type="number" min="0" class="field" /></label
      ><button type="button" class="act act-quiet" :disabled="!(area.m2 > 0)" @click="workOut">
        {{ w('mix.workOut') }}
      </button>
    </div>
  </FoldOut>
</template>
