<template>
  <!-- the denser the hatching, the worse the grade -->
  <defs>
    <pattern
      v-for="(gap, i) in [13, 10, 7.5, 5.5, 3.6]"
      :id="`grade-${i + 1}`"
      :key="gap"
      :width="gap"
      :height="gap"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <line x1="0" y1="0" x2="0" :y2="gap" stroke="var(--color-ink)" stroke-width="1.4" />
    </pattern>
  </defs>
</template>
