<!-- The part on a photo: its scale, its faces as outlines with their areas, damage where it is, before and after. -->
<script lang="ts">
  import FilePick from '../../ui/FilePick.svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { p, route } from '../../app/router';
  import type { Point } from '../../charts/overlay';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import PartPicture from '../../ui/PartPicture.svelte';
  import BeforeAfter from './BeforeAfter.svelte';
  import PhotoFaces from './PhotoFaces.svelte';
  import PhotoSpots from './PhotoSpots.svelte';
  import PhotoTools from './PhotoTools.svelte';
  import { PartOnPhoto } from './photo.svelte';

  const part = new PartOnPhoto(Number(route.params.id));
  void part.load();
  const photo = $derived(part.photo);
  const faces = $derived((part.kept?.job.faces ?? []).filter((one) => !one.edge));
  const before = $derived(part.photos.find((one) => one.shows === 'before' && one.drawn.anchors?.length === 2));
  const after = $derived(part.photos.find((one) => one.shows === 'after' && one.drawn.anchors?.length === 2));
  let comparing = $state(false);
  let surface = $state<SVGGElement>();
  /** Where a keyboard points, in pixels of the picture. */
  let cursor = $state<Point | null>(null);

  const colours = ['--t1', '--t3', '--t5', '--t2', '--t4', '--t6'];
  const colourOf = (id: string) =>
    `var(${
      colours[
        Math.max(
          0,
          faces.findIndex((one) => one.id === id),
        ) % colours.length
      ]
    })`;

  function at(event: MouseEvent): Point | null {
    const matrix = surface?.getScreenCTM()?.inverse();
    if (!matrix) return null;
    const found = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [Math.round(found.x * 10) / 10, Math.round(found.y * 10) / 10];
  }

  function press(event: MouseEvent) {
    const point = at(event);
    if (point && part.tool !== 'move') void part.tap(point);
  }

  /** A hand takes the nearest point, moves it, and lets it go. */
  function take(event: PointerEvent & { currentTarget: HTMLElement }) {
    const point = at(event);
    const grip = point && photo && part.tool === 'move' ? part.gripAt(point, photo.width / 25) : null;
    if (!point || !grip) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    part.moving = { grip, to: point };
  }

  function move(event: PointerEvent) {
    const point = part.moving && at(event);
    if (part.moving && point) part.moving = { grip: part.moving.grip, to: point };
  }

  /** Without a mouse: arrows move a cross over the picture, Enter sets a point. */
  function walk(event: KeyboardEvent) {
    if (!photo) return;
    const step = (event.shiftKey ? 0.05 : 0.005) * photo.width;
    const by: Record<string, Point> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const now = cursor ?? [photo.width / 2, photo.height / 2];
    const move = by[event.key];
    if (move) cursor = [now[0] + move[0], now[1] + move[1]];
    else if (event.key === 'Enter') void part.tap([Math.round(now[0]), Math.round(now[1])]);
    else return;
    event.preventDefault();
  }

  useKeys('The part on a photo', [
    { press: '$mod+z', shown: 'Ctrl Z', does: 'Undo', run: () => void part.undo() },
    {
      press: 'f',
      shown: 'F',
      does: 'Close the outline or end the stroke',
      run: () => part.canFinish && void part.finish(),
    },
  ]);
</script>

{#snippet dots(points: number[][], width: number, share: number)}
  {#each points as [x, y], n (n)}
    <circle cx={x} cy={y} r={width / share} fill="#fff" stroke="#22262b" stroke-width={width / 400} />
  {/each}
{/snippet}

<svelte:head><title>Photo of {part.kept?.job.title ?? 'a part'} – Kelbrast</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col gap-3 px-4.5 py-3">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    <div class="mr-auto">
      <p class="small dim">
        <a class="go hover:underline" href={p('/jobs/:id', { params: { id: String(part.id) } })}
          >{part.kept?.job.title ?? 'The job'}</a
        >
      </p>
      <h1>The part on a photo</h1>
    </div>
    {#each ['before', 'after'] as const as shows (shows)}
      <FilePick
        label="Photo {shows} the work"
        accept="image/jpeg,image/png,image/webp"
        disabled={part.busy}
        class="plain-button touch"
        onfiles={([file]) => file && void part.add(file, shows)}
        >{part.photos.some((one) => one.shows === shows) ? 'Another' : 'Photo'} {shows} the work</FilePick
      >
    {/each}
    {#if before && after}
      <button class="plain-button touch" aria-pressed={comparing} onclick={() => (comparing = !comparing)}
        >Before and after over each other</button
      >
    {/if}
  </div>
  {#if part.trouble}<p class="panel px-3 py-2 text-(--stop)" role="alert">{part.trouble}</p>{/if}
  {#if comparing && before && after}
    <BeforeAfter {before} {after} />
  {:else if photo}
    <div class="grid min-h-0 flex-1 gap-3.5 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div class="flex min-h-0 flex-col gap-2">
        {#if part.photos.length > 1}
          <div class="flex gap-2" role="group" aria-label="Photos of this part">
            {#each part.photos as one, n (one.id)}
              <button class="plain-button" aria-pressed={n === part.chosen} onclick={() => part.choose(n)}
                >{one.shows} {n + 1}</button
              >
            {/each}
          </div>
        {/if}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <!-- svelte-ignore a11y_no_noninteractive_element_interactions (arrows and Enter do the same) -->
        <div
          class="panel min-h-80 flex-1 overflow-hidden"
          role="application"
          aria-label="Photo: arrows move a cross, Enter sets a point"
          tabindex="0"
          onclick={press}
          onpointerdown={take}
          onpointermove={move}
          onpointerup={() => void part.letGo()}
          class:touch-none={part.tool === 'move'}
          onkeydown={walk}
        >
          <PartPicture
            {photo}
            drawn={part.drawn}
            picked={part.picked}
            label="The part with what is drawn on it"
            {colourOf}
            names
          >
            <g bind:this={surface}>
              {#if photo.drawn.scale?.kind === 'length'}
                {@const [a, b] = photo.drawn.scale.ends}
                <path d="M{a} L{b}" stroke="#fff" stroke-width={photo.width / 150} />
                <path d="M{a} L{b}" stroke="#22262b" stroke-width={photo.width / 300} />
              {:else if photo.drawn.scale}
                <polygon
                  points={photo.drawn.scale.corners.join(' ')}
                  fill="none"
                  stroke="#22262b"
                  stroke-width={photo.width / 400}
                  stroke-dasharray={photo.width / 80}
                />
              {/if}
              {#if part.tool === 'move'}
                {#each [...(part.drawn.marks ?? []), ...(part.drawn.outlines ?? [])] as one, n (n)}
                  {@render dots(one.points, photo.width, 120)}
                {/each}
              {/if}
              {#if part.tool === 'anchors'}
                {#each photo.drawn.anchors ?? [] as [x, y], n (n)}
                  <circle
                    cx={x}
                    cy={y}
                    r={photo.width / 90}
                    fill="none"
                    stroke="var(--t5)"
                    stroke-width={photo.width / 250}
                  />
                {/each}
              {/if}
              <polyline points={part.points.join(' ')} fill="none" stroke="#fff" stroke-width={photo.width / 250} />
              {@render dots(part.points, photo.width, 140)}
              {#if cursor}
                <path
                  d="M{cursor[0] - photo.width / 40} {cursor[1]}h{photo.width / 20}M{cursor[0]} {cursor[1] -
                    photo.width / 40}v{photo.width / 20}"
                  stroke="#a8321f"
                  stroke-width={photo.width / 300}
                />
              {/if}
            </g>
          </PartPicture>
        </div>
      </div>
      <aside class="panel flex flex-col gap-3 overflow-auto p-3" aria-label="What is drawn">
        <PhotoTools {part} />
        {#if part.tool === 'length'}
          <NumberField
            label="The known length is"
            value={part.lengthMm}
            quantity="length"
            onchange={(mm) => (part.lengthMm = mm)}
          />
          <p class="small">Tap its two ends. Right where the camera looked square on; else take the four corners.</p>
        {:else if part.tool === 'rectangle'}
          <div class="grid grid-cols-2 gap-2">
            <NumberField
              label="First side"
              value={part.widthMm}
              quantity="length"
              onchange={(mm) => (part.widthMm = mm)}
            />
            <NumberField
              label="Second side"
              value={part.heightMm}
              quantity="length"
              onchange={(mm) => (part.heightMm = mm)}
            />
          </div>
          <p class="small">
            Tap the four corners in turn, along the first side to begin with: a sheet of paper beside the part will do.
            It takes the slant of the camera out.
          </p>
        {:else if part.tool === 'outline'}
          <Choice
            label="The outline is of"
            value={part.face}
            options={[
              ...faces.map(({ id = '', name }) => ({ id, label: name })),
              ...part.drawnOnly,
              { id: '', label: 'A new face' },
            ]}
            onchange={(id) => (part.face = id)}
          />
          <p class="small">Tap around it, then close it.</p>
        {:else if part.tool === 'mark'}
          <Choice
            label="The damage is"
            value={part.damage}
            options={choices.all?.damages ?? []}
            onchange={(id) => (part.damage = id)}
          />
          <Either
            label="How it is drawn"
            value={part.around ? 'around' : 'along'}
            options={[
              { id: 'along', label: 'Along it' },
              { id: 'around', label: 'Around it' },
            ]}
            onchange={(way) => {
              part.around = way === 'around';
              part.take('mark');
            }}
          />
          <p class="small">
            {part.around ? 'Tap around the place, then close it.' : 'Tap a point, or along a stroke, then end it.'} It is
            a spot of the job, as large as it is drawn{photo.drawn.scale ? '' : ', once the scale is known'}.
          </p>
        {:else if part.tool === 'move'}
          <p class="small">Take a point and move it; areas and spots follow.</p>
        {:else if part.tool === 'anchors'}
          <p class="small">Tap two points that the other photo shows too: two holes, two corners.</p>
        {/if}
        <div class="flex flex-wrap gap-2">
          {#if part.tool === 'outline' || part.tool === 'mark'}
            <button class="main-button touch" disabled={!part.canFinish || part.busy} onclick={() => void part.finish()}
              >{part.tool === 'outline' || part.around ? 'Close the outline' : 'End the stroke'} <kbd>F</kbd></button
            >
          {/if}
          <button class="plain-button touch" disabled={!part.canUndo || part.busy} onclick={() => void part.undo()}
            >Undo</button
          >
        </div>
        <PhotoFaces {part} {photo} {colourOf} />
        <PhotoSpots {part} {photo} />
        <button
          class="small mt-auto min-h-[24px] self-start underline"
          disabled={part.busy}
          onclick={() => void part.remove()}>Remove this photo</button
        >
      </aside>
    </div>
  {:else}
    <div class="m-auto max-w-md text-center">
      <h2 class="text-lg">No photo yet</h2>
      <p class="dim mt-1">
        Take one of the part, with a known length or a sheet of paper beside it. Outlines that you draw on it give the
        areas of its faces; at the bench it shows where to work. Only the picture is kept: place, time and camera are
        taken out.
      </p>
    </div>
  {/if}
</div>
