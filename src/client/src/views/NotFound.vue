<template>
  <main class="page">
    <h1>Nothing here</h1>
    <p>This address leads nowhere. <RouterLink to="/">Go to the register</RouterLink>.</p>
  </main>
</template>
