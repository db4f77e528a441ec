<script lang="ts">
  /** How the program comes onto a telephone: the address that others reach, and the steps. */
  import Scan from './Scan.svelte';

  // Settings are open to planners: the crew's first look is the day sheet.
  const here = location.origin;
  const safe = isSecureContext;
  const alone = /^(localhost|127\..*|\[::1\])$/.test(location.hostname);
</script>

<section class="mt-4 border border-rule bg-white p-4" aria-label="On the phone">
  <h2>On the phone</h2>
  {#if alone}
    <p class="mt-1">
      This address, <span class="font-mono">{here}</span>, is this machine’s own: no phone reaches it. Who runs the program opens
      it to others with an owner’s account, a certificate and an address of the network; how is told in the README.
    </p>
  {:else}
    <ol class="mt-1 list-decimal pl-5">
      <li>Scan this with the phone’s camera, or open the link there.</li>
      <li>Sign in: the owner lets each one in by a link of their own, under “Who may sign in”.</li>
      <li>
        In the browser’s menu choose to add the page to the home screen: it opens like any other program{safe
          ? ', and without signal'
          : ''}.
      </li>
      {#if safe}<li>
          Before a day without signal open the day sheet once, and the walk of each property: what is needed comes along.
        </li>{/if}
    </ol>
    {#if !safe}<p class="mt-1 text-sm text-sun">
        This address has no certificate, so that browsers keep nothing of the page for a day without signal.
      </p>{/if}
    <div class="mt-3"><Scan link="{here}/#/day" what="The day sheet" /></div>
  {/if}
</section>
