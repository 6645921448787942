<script setup lang="ts">
import type { Light } from '#core/colour'

/** What a recipe is and what it promises, light by light. */
defineProps<{
  shares: readonly { id: number; name: string; pct: number; left_ml?: number }[]
  under: readonly { light: Light; de: number }[]
  limit?: readonly number[]
}>()
</script>

<template>
  <div class="grid sm:grid-cols-2 gap-x-8 gap-y-3" data-test="recipe">
    <table class="w-full self-start">
      <tbody>
        <tr v-for="s in shares" :key="s.id" class="border-t border-line">
          <td class="py-1.5">
            {{ s.name
            }}<span v-if="limit?.includes(s.id)" class="caption text-ochre block">{{ w('colour.atLimit') }}</span>
          </td>
          <td class="text-right clock font-semibold">{{ s.pct.toFixed(1) }} %</td>
        </tr>
        <tr class="border-t border-line text-soft">
          <td class="py-1.5">{{ w('colour.carrier') }}</td>
          <td class="text-right clock">{{ Math.max(0, 100 - shares.reduce((x, s) => x + s.pct, 0)).toFixed(1) }} %</td>
        </tr>
      </tbody>
    </table>
    <table class="w-full self-start">
      <tbody>
        <tr v-for="u in under" :key="u.light" class="border-t border-line">
          <td class="py-1.5">{{ w(`colour.lights.${u.light}`) }}</td>
          <td class="text-right" :class="u.de < 2 ? 'text-moss' : u.de < 3.5 ? 'text-ochre' : 'text-madder'">
            <strong class="clock">{{ u.de.toFixed(1) }}</strong> {{ w(grade(u.de)) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
