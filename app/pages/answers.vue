<script setup lang="ts">
const { data: answers, load, failed } = useLive('GET /api/answers', topic => topic === 'piece')
</script>

<template>
  <div class="max-w-4xl">
    <ReadyList />
    <h1>{{ w('answers.title') }}</h1>
    <PageState v-if="!answers" :failed="failed" />
    <p v-else-if="!answers.length" class="row mt-4">{{ w('answers.none') }}</p>
    <AnswerCard v-for="a in answers ?? []" :key="a.id" :answer="a" show-piece @changed="load" />
  </div>
</template>
