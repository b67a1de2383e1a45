<script lang="ts">
  import * as three from 'three';
  import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  let host = $state<HTMLDivElement>();
  let canvas = $state<HTMLCanvasElement>();
  let problem = $state<string>();
  let busy = $state(true);
  let scene: three.Scene | undefined;
  let draw = () => {};
  let mesh: three.Group | undefined;
  let aim: ((length: number, width: number) => void) | undefined;

  const MOST_CELLS = 400_000;

  $effect(() => {
    if (!host || !canvas) return;
    let renderer: three.WebGLRenderer;
    try {
      renderer = new three.WebGLRenderer({ antialias: true, canvas });
    } catch {
      problem =
        'This browser cannot draw in three dimensions (WebGL is off); the section and the view from above show the same piece.';
      busy = false;
      return;
    }
    const paper = getComputedStyle(host).getPropertyValue('--paper').trim();
    scene = new three.Scene();
    scene.background = new three.Color(paper);
    const camera = new three.PerspectiveCamera(32, 1, 1, 20000);
    camera.up.set(0, 0, 1);
    const controls = new OrbitControls(camera, renderer.domElement);
    scene.add(new three.HemisphereLight(0xffffff, 0x8a7a60, 1.4));
    const sun = new three.DirectionalLight(0xffffff, 2.2);
    sun.position.set(-400, 500, 420);
    scene.add(sun);
    // Once a frame, however much has changed: a picture of the whole piece takes long where there is no graphics card.
    let due = 0;
    const render = () => {
      due = 0;
      renderer.render(scene!, camera);
    };
    draw = () => void (due ||= requestAnimationFrame(render));
    controls.addEventListener('change', draw);
    aim = (length, width) => {
      // Far enough that the whole board fits, whichever way it is long.
      const half = Math.tan(((camera.fov / 2) * Math.PI) / 180);
      const distance = (1.25 * Math.max(length / 2 / camera.aspect, width / 2)) / half;
      camera.position.set(-length * 0.06, -distance * 0.62, distance * 0.8);
      controls.target.set(0, 0, 0);
      controls.update();
    };
    const size = () => {
      const { clientWidth: w, clientHeight: h } = host!;
      renderer.setSize(w, h);
      camera.aspect = w / Math.max(1, h);
      camera.updateProjectionMatrix();
      // Another size empties the picture at once.
      render();
    };
    size();
    const sizer = new ResizeObserver(size);
    sizer.observe(host);
    return () => {
      cancelAnimationFrame(due);
      sizer.disconnect();
      controls.dispose();
      renderer.dispose();
    };
  });

  let asked = 0;
  $effect(() => {
    if (!host || !session.view) return;
    const mine = ++asked;
    busy = true;
    void session.ask('relief', MOST_CELLS).then((relief) => {
      if (mine !== asked || !scene || !relief) return;
      const first = mesh === undefined;
      if (mesh) scene.remove(mesh);
      const geometry = new three.BufferGeometry();
      geometry.setAttribute('position', new three.BufferAttribute(relief.positions, 3));
      geometry.setAttribute('normal', new three.BufferAttribute(relief.normals, 3));
      geometry.setAttribute('color', new three.BufferAttribute(relief.colours, 3));
      geometry.setIndex(new three.BufferAttribute(relief.index, 1));
      mesh = new three.Group();
      mesh.add(new three.Mesh(geometry, new three.MeshLambertMaterial({ vertexColors: true, side: three.DoubleSide })));
      const board = new three.Mesh(
        new three.BoxGeometry(relief.length + 30, relief.width + 30, 6),
        new three.MeshLambertMaterial({ color: 0xa79f8e }),
      );
      board.position.z = -relief.thickness - 3.2;
      const sides = new three.Mesh(
        new three.BoxGeometry(relief.length, relief.width, relief.thickness - 0.4),
        [0, 1, 2, 3]
          .map(() => new three.MeshLambertMaterial({ color: 0xb98f56 }))
          .concat([4, 5].map(() => new three.MeshLambertMaterial({ visible: false }))),
      );
      sides.position.z = -relief.thickness / 2 - 0.2;
      mesh.add(board, sides);
      scene.add(mesh);
      if (first) aim?.(relief.length, relief.width);
      draw();
      busy = false;
    });
  });
</script>

<div class="relief" bind:this={host} role="img" aria-label="The carved piece in three dimensions; drag to turn it">
  <canvas bind:this={canvas}></canvas>
  {#if problem}<p class="say">{problem}</p>{:else if busy}<p class="say" role="status">Carving the picture…</p>{/if}
</div>

<style>
  .relief {
    position: relative;
    height: 100%;
    min-height: 0;
    overflow: hidden;
  }
  canvas {
    position: absolute;
    inset: 0;
  }
  .say {
    position: absolute;
    left: 20px;
    bottom: 14px;
    z-index: 1;
  }
</style>
