<script setup lang="ts">
const session = useSession()
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can, id }"
    ><BeforeThis :id="id" /><FaceFindings
      v-if="exam.faces.length"
      :id="id"
      :exam="exam"
      :load="load"
      :can="can" /><AddFaces
      v-if="can && session.may('take-in')"
      :id="id"
      :key="exam.faces.length"
      :first="exam.faces.length === 0"
      @added="load"
  /></ExaminePage>
</template>
