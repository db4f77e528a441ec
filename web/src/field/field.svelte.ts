/** The walk on this device: what is found is kept here first, then sent when the house can be reached. */
import { answerOf, api, ask, type Check, counted, onceKey, type Plant, plantsOn, Problem, type Schemas } from '../api/client';
import { house } from '../lib/house.svelte';
import { Decisions, type Kept, standing, textOf } from './decided.svelte';
import { device, type Look, type Photo, type Waiting, type WaitingDecision, type WaitingPhoto, type Walk } from './device';
import { joined, joinedNote } from './join';
import { ASK_AGAIN, Sender, Shelf, stumbled, unreached } from './sending.svelte';
import { shrink } from './shrink';
import { judge, type Ruling, today } from './verdicts';

const REST = 400; // ms between two writes of the walk at hand to the device, at least

const copy = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T;

/** A walk that begins without a connection has an id of its own, from its day and property, until the house gives it one. */
const local = (day: string, property: number) => -(Number(day.replaceAll('-', '')) * 100_000 + property);
const ofLocal = (id: number) => {
  const d = String(Math.floor(-id / 100_000));
  return { day: `${d.slice(0, 4)}-${d.slice(4, 6)}-${d.slice(6)}`, property: -id % 100_000 };
};
/** Takes what the house told of a plant into a walk. */
function take(w: Walk, plant: number, told: Schemas['Found']) {
  delete w.own?.[plant];
  w.answers[plant] = told;
  w.revs[plant] = told.rev;
  w.looks[plant] = { checks: told.found, note: told.note };
}

class Field {
  walk = $state.raw<Walk>(); // replaced whole, so that what shows it follows
  #looks = new Shelf<Waiting>({ ...device.looks, keep: (w) => device.looks.keep(copy(w)) }, (w) => w.id);
  #shots = new Shelf<WaitingPhoto>(device.photos, (p) => p.key);
  decisions = new Decisions();
  #walks = new Shelf<Walk>(device.walks, (w) => String(w.property)); // as last written: what is shown is `walk`
  #kept: Record<string, number> = {}; // how often something was kept of a plant: what was asked before is out of date
  #resting: ReturnType<typeof setTimeout> | undefined;
  #asking: ReturnType<typeof setTimeout> | undefined;
  #turn = 0;
  #told = ''; // of which reading and plant the verdict came with the walk
  #sender = new Sender({
    lock: 'mezzadro-sends',
    shelves: [this.#looks, this.#shots, this.decisions.shelf],
    open: () =>
      this.#looks.list.some((w) => !w.theirs && !w.refused) ||
      this.photos.some((p) => !p.refused) ||
      this.decisions.list.some((d) => this.#sendable(d)),
    before: (later) => this.#startWalks(later),
    next: (later) => this.#next(later),
  });

  constructor() {
    document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && this.#rest());
  }

  /** What was found and waits, by walk and plant. */
  get waiting(): Record<string, Waiting> {
    return this.#looks.things;
  }
  /** Photos that wait. */
  get photos(): WaitingPhoto[] {
    return this.#shots.list;
  }
  /** Whether the house could not be reached at the last try. */
  get away(): boolean {
    return this.#sender.away;
  }
  /** Whether this device does not keep what is found. */
  get unkept(): boolean {
    return this.#looks.unkept || this.#shots.unkept || this.#walks.unkept || this.decisions.shelf.unkept;
  }
  /** How many finds, photos and decisions wait to be sent. */
  get left(): number {
    return Object.keys(this.waiting).length + this.photos.length + this.decisions.list.length;
  }
  of(walk: number, plant: number): Waiting | undefined {
    return this.waiting[`${walk}:${plant}`];
  }

  /**
   * Brings a property's walk of today to hand: from the house, or as it was last read on this device. Where it begins is asked
   * of its plants, so that the verdict on that one comes along.
   */
  async open(property: number, beginning: (plants: Plant[]) => number | undefined): Promise<void> {
    const turn = ++this.#turn; // a later call takes over
    this.#rest();
    this.walk = undefined; // at once, so that nothing is asked of the walk that goes
    await this.#sender.ready;
    await this.#sender.still();
    const before = await device.walk(property);
    try {
      const plants = await plantsOn(property);
      const body = { property_id: property, plant_id: beginning(plants) };
      const w = await ask(api.POST('/api/v1/walks', { body, params: { header: onceKey() } }));
      const same = before?.walk === w.id;
      const fresh: Walk = {
        property,
        walk: w.id,
        day: w.day,
        read: new Date().toISOString(),
        plants,
        looks: {},
        revs: {},
        answers: same ? before.answers : {},
        photos: w.photos,
        skipped: same ? before.skipped : [],
      };
      for (const l of w.looks) {
        fresh.looks[l.plant_id] = { checks: l.checks, note: l.note };
        fresh.revs[l.plant_id] = l.rev;
      }
      if (turn !== this.#turn) return;
      this.#sender.away = false;
      if (same) fresh.own = before.own;
      const at = body.plant_id;
      if (w.first && at && !this.of(w.id, at)) {
        take(fresh, at, w.first);
        this.#told = `${fresh.read} ${w.id}:${at}`;
      }
      this.#put(fresh);
    } catch (e) {
      if (turn !== this.#turn) return;
      if (!(e instanceof Problem) || e.status !== 0 || !before) throw e;
      this.#sender.away = true;
      // A new day is a new walk; what is known of the plants goes along.
      this.#put(
        before.day >= today()
          ? before
          : { ...before, walk: local(today(), property), day: today(), looks: {}, revs: {}, own: {}, photos: [], skipped: [] },
      );
    }
    // What waits stands over what the house knows.
    for (const p of Object.values(this.waiting))
      if (p.walk === this.walk!.walk) this.#change((w) => (w.looks[p.plant] = { checks: p.checks, note: p.note }));
    for (const d of this.decisions.list) if (d.walk === this.walk!.walk && !d.refused) this.#stand(d);
    void this.send();
  }

  #put(w: Walk) {
    this.walk = w;
    // The walk at hand is much to write on a large property, and what was found is kept apart: not each press writes it.
    this.#resting ??= setTimeout(() => this.#rest(), REST);
  }
  #rest() {
    clearTimeout(this.#resting);
    this.#resting = undefined;
    const w = this.walk;
    if (w) void this.#walks.put(copy(w));
  }
  #change(f: (w: Walk) => void) {
    if (!this.walk) return;
    const w = {
      ...this.walk,
      looks: { ...this.walk.looks },
      revs: { ...this.walk.revs },
      answers: { ...this.walk.answers },
      own: { ...this.walk.own },
    };
    f(w);
    this.#put(w);
  }
  setPlants(f: (p: Plant) => Plant) {
    this.#change((w) => (w.plants = w.plants.map(f)));
  }
  /** Puts a plant that was added on the walk on its list. */
  addPlant(p: Plant) {
    this.#change((w) => (w.plants = [...w.plants, p]));
  }
  setPhotos(f: (p: Photo[]) => Photo[]) {
    this.#change((w) => (w.photos = f(w.photos)));
  }
  skip(plant: number, on: boolean) {
    this.#change((w) => (w.skipped = on ? [...new Set([...w.skipped, plant])] : w.skipped.filter((p) => p !== plant)));
  }

  /** Keeps what was found at a plant on the device, and sends it when it can. */
  async keep(plant: number, checks: Check[], note: string): Promise<void> {
    const w = this.walk;
    if (!w) return;
    checks = copy(checks);
    const old = this.of(w.walk, plant);
    const entry: Waiting = old
      ? { ...old, checks, note, refused: undefined }
      : {
          id: `${w.walk}:${plant}`,
          walk: w.walk,
          property: w.property,
          plant,
          known: copy(w.looks[plant]?.checks ?? []),
          base: w.revs[plant] ?? 0,
          checks,
          note,
        };
    this.#kept[entry.id] = (this.#kept[entry.id] ?? 0) + 1;
    const kept = this.#looks.put(copy(entry));
    this.#change((x) => {
      x.looks[plant] = { checks, note };
      x.skipped = x.skipped.filter((p) => p !== plant);
    });
    const decided = this.decisions.of(w.walk, plant);
    if (decided && decided.checks !== textOf(checks)) await this.takeBack(decided); // it was made on less
    await kept;
    void this.send().then(() => this.#judge(plant));
  }

  /** Forms the verdict on this device while the house cannot be reached. */
  async #judge(plant: number): Promise<void> {
    const w = this.walk;
    const waits = w && this.of(w.walk, plant);
    if (!w || !this.away || waits?.theirs || waits?.refused) return;
    const checks = copy(w.looks[plant]?.checks ?? []);
    try {
      const a = await judge({ property: w.property, plant, day: w.day, checks });
      if (!a || this.walk?.walk !== w.walk || textOf(this.walk.looks[plant]?.checks ?? []) !== textOf(checks)) return;
      this.#change((x) => {
        x.answers[plant] = a;
        x.own = { ...x.own, [plant]: textOf(checks) };
      });
    } catch (e) {
      if (!unreached(e)) house.fail(e); // not taken along: it is judged when the house can be reached
    }
  }
  /** Whether the verdict that is shown of a plant is on all that was found: formed here, or by the house. */
  current(plant: number): boolean {
    const w = this.walk;
    if (!w?.answers[plant]) return false;
    return w.own?.[plant] === textOf(w.looks[plant]?.checks ?? []) || !this.of(w.walk, plant);
  }

  /** Decides about a plant: kept here first, then sent after what was found there. With what the house kept, once it has it. */
  async decide(plant: Plant, ruling: Ruling): Promise<Kept | undefined> {
    const w = this.walk!;
    const checks = w.looks[plant.id]?.checks ?? [];
    const seen = { property: w.property, plant: plant.id, day: w.day, checks };
    const away = this.away;
    const answer = (away && (await judge(seen, copy(ruling)))) || w.answers[plant.id]!;
    const at = { walk: w.walk, property: w.property, plant: plant.id, name: plant.common, day: w.day };
    const key = await this.decisions.keep({ ...at, checks: textOf(checks), rev: w.revs[plant.id] ?? 0, ruling }, answer, away);
    this.#stand(this.decisions.of(w.walk, plant.id)!);
    await this.send();
    const told = this.decisions.told(key);
    if (told instanceof Error) {
      const refused = this.decisions.of(w.walk, plant.id);
      if (refused) await this.takeBack(refused, plant);
      throw told;
    }
    return told;
  }
  /** Takes a decision back that the house does not have yet; before is the plant as it was. */
  async takeBack(d: WaitingDecision, before?: Plant): Promise<void> {
    await this.decisions.drop(d);
    if (this.walk?.walk !== d.walk) return;
    this.setPlants((p) => (p.id === d.plant ? { ...p, verdict: before?.verdict, decided: before?.decided ?? false } : p));
    this.skip(d.plant, false);
  }
  #stand(d: WaitingDecision) {
    const putOff = d.ruling.decision === 'not now';
    this.setPlants((p) => (p.id === d.plant ? { ...p, verdict: standing(d), decided: !putOff } : p));
    if (putOff) this.skip(d.plant, true);
  }
  /** Whether a decision can be sent: after what was found, which is settled and taken. */
  #sendable(d: WaitingDecision): boolean {
    const look = this.of(d.walk, d.plant);
    return !d.refused && !look?.theirs && !look?.refused;
  }
  async #sendDecision(d: WaitingDecision) {
    const kept = await this.decisions.send(d);
    if (this.walk?.walk !== d.walk) return;
    if (kept)
      this.setPlants((p) => (p.id === d.plant ? { ...p, verdict: kept.verdict, decided: d.ruling.decision !== 'not now' } : p));
    else this.setPlants((p) => (p.id === d.plant ? { ...p, verdict: undefined, decided: false } : p));
  }

  /** Reads the verdict of what the house has kept of a plant. Without a connection the last one stands. */
  async ask(plant: number): Promise<void> {
    const w = this.walk;
    if (!w) return;
    if (this.of(w.walk, plant)) {
      if (!this.current(plant)) void this.#judge(plant); // the page was opened anew before its verdict was written
      return;
    }
    const id = `${w.walk}:${plant}`;
    const before = this.#kept[id];
    clearTimeout(this.#asking);
    if (this.#told === `${w.read} ${id}`) {
      this.#told = ''; // it came with the walk; asked for again it is read anew
      return;
    }
    if (w.walk < 0) {
      // Begun here, and not known to the house yet: it is opened there as soon as the house can be reached.
      void this.#judge(plant);
      this.#asking = setTimeout(
        () =>
          void (house.ondevice
            ? this.ask(plant)
            : this.open(w.property, (list) => list.find((p) => p.id === plant)?.id).catch((e: unknown) => house.fail(e))),
        ASK_AGAIN,
      );
      return;
    }
    try {
      const a = await ask(api.GET('/api/v1/walks/{id}/plants/{plant}/verdict', { params: { path: { id: w.walk, plant } } }));
      if (this.walk?.walk !== w.walk || this.of(w.walk, plant) || this.#kept[id] !== before) return;
      this.#sender.away = false;
      this.#change((x) => take(x, plant, a));
    } catch (e) {
      if (!(e instanceof Problem) || e.status !== 0) return house.fail(e);
      this.#sender.away = true;
      void this.#judge(plant);
      clearTimeout(this.#asking);
      this.#asking = setTimeout(() => void this.ask(plant), ASK_AGAIN); // of the plant asked about last
    }
  }

  /** Waits until all that can be sent is sent. */
  send(): Promise<void> {
    return this.#sender.send();
  }
  /** Finds come before photos, those made while photos go up too; what was decided on them comes last. */
  #next(later: Set<string>) {
    const look = this.#looks.list.find((w) => w.walk > 0 && !w.theirs && !w.refused && !later.has(w.id));
    if (look) return { key: look.id, send: () => this.#sendLook(look) };
    const photo = this.photos.find((p) => p.walk > 0 && !p.refused && !later.has(p.key));
    if (photo) return { key: photo.key, send: () => this.#sendPhoto(photo) };
    const d = this.decisions.list.find((x) => x.walk > 0 && this.#sendable(x) && !this.of(x.walk, x.plant) && !later.has(x.id));
    return d && { key: d.id, send: () => this.#sendDecision(d) };
  }
  /** Has the house begin the walks that began here. */
  async #startWalks(later: Set<string>) {
    const open = [...Object.values(this.waiting), ...this.photos, ...this.decisions.list].filter((x) => x.walk < 0 && !x.refused);
    for (const id of new Set(open.map((x) => x.walk))) {
      const { day, property } = ofLocal(id);
      const finds = Object.values(this.waiting).filter((x) => x.walk === id);
      const shots = this.photos.filter((p) => p.walk === id);
      const decided = this.decisions.list.filter((d) => d.walk === id);
      let walk: number;
      try {
        const body = { property_id: property, day };
        walk = (await ask(api.POST('/api/v1/walks', { body, params: { header: onceKey() } }))).id;
      } catch (e) {
        if (unreached(e)) throw e;
        if (stumbled(e)) {
          for (const x of [...finds.map((w) => w.id), ...shots.map((p) => p.key), ...decided.map((d) => d.id)]) later.add(x);
          continue;
        }
        const refused = e instanceof Error ? e.message : String(e);
        for (const x of finds) await this.#looks.put({ ...x, refused });
        for (const p of shots) await this.#shots.put({ ...p, refused });
        for (const d of decided) await this.decisions.shelf.put({ ...d, refused });
        continue;
      }
      if (this.walk?.walk === id) this.#change((w) => (w.walk = walk));
      for (const x of finds) {
        // Where something waits for the same plant already, both are kept.
        const there = this.of(walk, x.plant);
        const checks = there ? [...there.checks, ...x.checks] : x.checks;
        const note = there ? joinedNote(x.note, there.note) : x.note;
        await this.#looks.put({ ...(there ?? x), id: `${walk}:${x.plant}`, walk, checks, note });
        await this.#looks.drop(x.id);
        if (this.walk?.walk === walk) this.#change((w) => (w.looks[x.plant] = { checks, note }));
      }
      for (const p of shots) await this.#shots.put({ ...p, walk });
      for (const d of decided) {
        await this.decisions.shelf.put({ ...d, id: `${walk}:${d.plant}`, walk });
        await this.decisions.drop(d);
      }
    }
  }
  async #sendLook(w: Waiting) {
    const sent = w.sent ?? { key: onceKey()['Idempotency-Key'], checks: w.checks, note: w.note };
    if (!w.sent) await this.#looks.put({ ...w, sent });
    try {
      const a = await ask(
        api.PUT('/api/v1/walks/{id}/plants/{plant}/checks', {
          params: { path: { id: w.walk, plant: w.plant }, header: { 'Idempotency-Key': sent.key } },
          body: { checks: sent.checks, note: sent.note, base: w.base },
        }),
      );
      const now = this.waiting[w.id]!;
      // What the house told comes first, so that a press made meanwhile is based on it.
      if (this.walk?.walk === w.walk)
        this.#change((x) => {
          x.revs[w.plant] = a.rev;
          x.answers[w.plant] = a;
          delete x.own?.[w.plant];
        });
      await this.decisions.based(w.id, a.rev);
      const done = JSON.stringify([now.checks, now.note]) === JSON.stringify([sent.checks, sent.note]);
      if (done) await this.#looks.drop(w.id);
      else await this.#looks.put({ ...now, sent: undefined, known: sent.checks, base: a.rev });
    } catch (e) {
      if (!(e instanceof Problem) || unreached(e) || stumbled(e)) throw e;
      const now = this.waiting[w.id]!;
      if (e.status === 409 && e.kept) await this.#looks.put({ ...now, sent: undefined, theirs: e.kept as Look });
      else await this.#looks.put({ ...now, sent: undefined, refused: e.message });
    }
  }

  /** Settles what two devices found at one plant. */
  async settle(w: Waiting, how: 'both' | 'mine' | 'theirs') {
    const theirs = w.theirs!;
    const list = theirs.checks;
    const checks = how === 'theirs' ? list : how === 'mine' ? w.checks : joined(w.known, w.checks, list);
    const note = how === 'theirs' ? theirs.note : how === 'mine' ? w.note : joinedNote(w.note, theirs.note);
    const entry: Waiting = { ...w, theirs: undefined, sent: undefined, known: list, base: theirs.rev, checks, note };
    await this.#looks.put(entry);
    if (this.walk?.walk === w.walk) this.#change((x) => (x.looks[w.plant] = { checks, note }));
    const decided = this.decisions.of(w.walk, w.plant);
    if (decided && decided.checks !== textOf(checks)) await this.takeBack(decided); // others found more: it is decided anew
    await this.send();
  }

  /** Takes a picture file: shrinks it and keeps it on the device until it is sent. */
  async addPhoto(plant: number, file: File, where?: { latitude: number; longitude: number }, taken = '') {
    const w = this.walk;
    if (!w) return;
    const p: WaitingPhoto = {
      key: onceKey()['Idempotency-Key'],
      walk: w.walk,
      plant,
      blob: await shrink(file),
      taken,
      place: where,
    };
    await this.#shots.put(p);
    void this.send();
  }
  dropPhoto(key: string): Promise<void> {
    return this.#shots.drop(key);
  }
  async #sendPhoto(p: WaitingPhoto) {
    const query = new URLSearchParams();
    if (p.taken) query.set('taken', p.taken);
    if (p.place) {
      query.set('here', 'true');
      query.set('latitude', String(p.place.latitude));
      query.set('longitude', String(p.place.longitude));
    }
    let answer: Schemas['Photo'];
    try {
      answer = await answerOf(
        counted(`/api/v1/walks/${p.walk}/plants/${p.plant}/photos?${query}`, {
          method: 'POST',
          headers: { 'Content-Type': 'image/jpeg', 'Idempotency-Key': p.key },
          body: p.blob,
        }),
      );
    } catch (e) {
      if (unreached(e) || stumbled(e)) throw e;
      const why = (e as Error).message;
      await this.#shots.put({ ...p, refused: why });
      house.fail(new Error(why));
      return;
    }
    await this.dropPhoto(p.key);
    if (this.walk?.walk === p.walk) this.setPhotos((l) => [...l, answer]);
  }
}

export const field = new Field();
