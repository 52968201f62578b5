/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** Left out where nobody has to sign in. */
    session?: import('./server/front/access').SessionKind;
    habits: import('./core/records/house').Habits;
  }
}
