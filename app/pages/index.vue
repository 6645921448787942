<template>
  <p>Hantverk</p>
</template>
