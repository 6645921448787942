<script setup lang="ts">
import { IMPLIED, type Right, RIGHTS, type Role, ROLES } from '#shared/rights'

/** Which role may do what; the owner has every right and gives the others theirs. */
const props = defineProps<{ rights: Record<Right, Role[]> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const owner = computed(() => session.person?.role === 'owner')
const given = ROLES.filter(r => r !== 'owner')
const implied = (role: Role, right: Right) => (IMPLIED[right] ?? []).some(by => props.rights[by].includes(role))
async function change(role: (typeof given)[number], right: Right, may: boolean) {
  await send('PUT /api/rights', { body: { role, right, may } })
  emit('changed')
}
</script>

<template>
  <section data-test="rights">
    <h2>{{ w('rights.title') }}</h2>
    <p class="caption">{{ w('rights.why') }}</p>
    <table class="w-full mt-2">
      <thead>
        <tr class="text-left">
          <th />
          <th v-for="r in given" :key="r" class="w-20 font-semibold">{{ w(`role.${r}`) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="right in RIGHTS" :key="right" class="border-t border-line">
          <th scope="row" class="text-left font-normal py-1 pr-2">{{ w(`rights.of.${right}`) }}</th>
          <td v-for="r in given" :key="r">
            <SwitchField
              :model-value="rights[right].includes(r) || implied(r, right)"
              :label="w('rights.one', { role: w(`role.${r}`), right: w(`rights.of.${right}`) })"
              label-hidden
              :disabled="!owner || implied(r, right)"
              @update:model-value="change(r, right, Boolean($event))"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
