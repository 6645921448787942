<template>
  <main class="mx-auto max-w-3xl px-5 py-8">
    <slot />
    <FootNote />
  </main>
</template>
