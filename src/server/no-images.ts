/** Stands where Astro would make pictures on demand. */
import type { APIRoute } from 'astro';

export const prerender = false;

export const ALL: APIRoute = () => new Response(null, { status: 404 });
