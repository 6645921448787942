<template>
  <ExaminePage v-slot="{ exam, load, can, id }"
    ><FaceFindings :id="id" :exam="exam" :load="load" :can="can"
  /></ExaminePage>
</template>
