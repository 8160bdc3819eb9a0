<template>
  <svg viewBox="0 0 28 28" aria-hidden="true">
    <g fill="none" stroke-width="1.6">
      <path d="M1 1h5a5 5 0 0 1-5 5z" fill="#d9c6a4" stroke="none" />
      <path d="M10 1a9 9 0 0 1-9 9M14 1a13 13 0 0 1-13 13M19 1a18 18 0 0 1-18 18" stroke="#cfe0dc" />
      <path d="M27 1A26 26 0 0 1 1 27" stroke="#5fb7ad" />
    </g>
  </svg>
</template>
