/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    habits: import('./core/records/house').Habits;
  }
}
