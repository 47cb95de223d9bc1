// A body to turn, by three.js: an even booth, true to scale, cut above a layer.
import { tell } from "./pointed.js";

const BOOTH = 0xd4d6d8;
const STEP = Math.PI / 12;
const STANCES = { corner: [-0.5, 0.75], above: [0, Math.PI / 2], beneath: [0, -Math.PI / 2] };

// Fine lines between layers, where they are far enough apart to be seen.
const LINES = `
  float at = (vHeight - uFirst) / uEach;
  float wide = fwidth(at);
  if (wide > 0.0005 && wide < 0.5) {
    float near = abs(fract(at + 0.5) - 0.5);
    diffuseColor.rgb *= 1.0 - 0.32 * (1.0 - smoothstep(0.0, max(wide * 1.2, 0.08), near)) * (1.0 - wide / 0.5);
  }`;

// Whether pictures are made by the processor, which has none to spare for smooth edges.
function isSlow() {
  const gl = document.createElement("canvas").getContext("webgl2");
  const info = gl?.getExtension("WEBGL_debug_renderer_info");
  return /swiftshader|llvmpipe|software/i.test(info ? gl.getParameter(info.UNMASKED_RENDERER_WEBGL) : "");
}

export class Body {
  constructor(stage) {
    this.stage = stage;
    this.turn = STANCES.corner[0];
    this.lean = STANCES.corner[1];
    this.near = 1;
    this.ended = new AbortController();
  }

  async begin() {
    try {
      const [three, bytes] = await Promise.all([
        import(this.stage.dataset.three),
        fetch(this.stage.dataset.body).then((r) => (r.ok ? r.arrayBuffer() : Promise.reject(r.status))),
      ]);
      this.three = three;
      this.renderer = new three.WebGLRenderer({ antialias: !isSlow() });
      this.build(bytes);
    } catch {
      return false;
    }
    const canvas = this.renderer.domElement;
    canvas.tabIndex = 0;
    canvas.setAttribute("role", "application");
    canvas.setAttribute("aria-label", "The piece; arrow keys turn it, plus and minus come nearer and go away");
    this.stage.replaceChildren(canvas);
    this.controls = document.getElementById("piece-turn");
    this.controls.hidden = false;
    this.listen(canvas);
    this.resize();
    this.fit();
    await this.cutAt(Number(document.getElementById("piece-cut").value));
    return true;
  }

  end() {
    this.ended.abort();
    this.renderer?.dispose();
  }

  build(bytes) {
    const T = this.three;
    this.scene = new T.Scene();
    this.scene.background = new T.Color(BOOTH);
    this.camera = new T.OrthographicCamera(-1, 1, 1, -1, 0.1, 10);
    this.camera.up.set(0, 0, 1);
    this.scene.add(new T.HemisphereLight(0xffffff, 0xd8d8d8, 2.2));
    this.lamp = new T.DirectionalLight(0xffffff, 1.1);
    this.scene.add(this.lamp, this.lamp.target);
    this.plane = new T.Plane(new T.Vector3(0, 0, -1), 1e6);
    this.renderer.localClippingEnabled = true;
    this.mesh = new T.Mesh(this.geometry(bytes), this.material([this.plane]));
    this.scene.add(this.mesh);
    this.box = new T.Box3().setFromObject(this.mesh);
    this.middle = this.box.getCenter(new T.Vector3());
    this.radius = Math.max(1, this.box.getSize(new T.Vector3()).length() / 2);
  }

  geometry(bytes) {
    const T = this.three;
    const head = new DataView(bytes);
    const corners = head.getInt32(0, true);
    const triangles = head.getInt32(4, true);
    const low = [8, 12, 16].map((at) => head.getFloat32(at, true));
    const step = head.getFloat32(20, true);
    const steps = new Uint16Array(bytes, 24, 3 * corners);
    const shades = new Uint8Array(bytes, 24 + 6 * corners, 3 * corners);
    const index = new Uint32Array(bytes, Math.ceil((24 + 9 * corners) / 4) * 4, 3 * triangles);
    const linear = Float32Array.from({ length: 256 }, (_, i) => (i <= 10 ? i / 255 / 12.92 : ((i / 255 + 0.055) / 1.055) ** 2.4));
    const place = new Float32Array(3 * corners);
    const colour = new Float32Array(3 * corners);
    for (let i = 0; i < 3 * corners; i++) {
      place[i] = low[i % 3] + step * steps[i];
      colour[i] = linear[shades[i]];
    }
    const geometry = new T.BufferGeometry();
    geometry.setAttribute("position", new T.BufferAttribute(place, 3));
    geometry.setAttribute("color", new T.BufferAttribute(colour, 3));
    geometry.setIndex(new T.BufferAttribute(index, 1));
    return geometry;
  }

  material(planes) {
    const T = this.three;
    const first = this.stage.dataset.first / 1000;
    const each = this.stage.dataset.each / 1000;
    const material = new T.MeshLambertMaterial({ vertexColors: true, clippingPlanes: planes, flatShading: true, side: T.DoubleSide });
    material.onBeforeCompile = (shader) => {
      shader.uniforms.uFirst = { value: first };
      shader.uniforms.uEach = { value: each };
      shader.vertexShader = shader.vertexShader
        .replace("#include <common>", "#include <common>\nvarying float vHeight;")
        .replace("#include <begin_vertex>", "#include <begin_vertex>\nvHeight = position.z;");
      shader.fragmentShader = shader.fragmentShader
        .replace("#include <common>", "#include <common>\nvarying float vHeight; uniform float uFirst; uniform float uEach;")
        .replace("#include <color_fragment>", "#include <color_fragment>" + LINES);
    };
    return material;
  }

  // Cut above a layer: what lies higher is left out, and the colours of that layer close it.
  async cutAt(layer) {
    const whole = layer >= Number(this.stage.dataset.layers);
    const top = (Number(this.stage.dataset.first) + (layer - 1) * Number(this.stage.dataset.each)) / 1000;
    this.plane.constant = whole ? 1e6 : top;
    this.wanted = layer;
    if (this.lid) this.scene.remove(this.lid);
    this.lid = null;
    this.draw();
    if (whole) return;
    const bytes = await fetch(this.stage.dataset.cut + layer).then((r) => r.arrayBuffer());
    if (this.wanted === layer) {
      this.lid = new this.three.Mesh(this.geometry(bytes), this.material([]));
      this.scene.add(this.lid);
      this.draw();
    }
  }

  listen(canvas) {
    const on = (target, what, how) => target.addEventListener(what, how, { signal: this.ended.signal, passive: false });
    let from = null;
    let moved = 0;
    on(canvas, "pointerdown", (e) => { from = e; moved = 0; canvas.setPointerCapture(e.pointerId); });
    on(canvas, "pointermove", (e) => {
      if (!from) return;
      moved += Math.abs(e.clientX - from.clientX) + Math.abs(e.clientY - from.clientY);
      this.by((from.clientX - e.clientX) / 150, (e.clientY - from.clientY) / 150);
      from = e;
    });
    on(canvas, "pointerup", (e) => { if (from && moved < 4) this.point(e); from = null; });
    on(canvas, "pointercancel", () => { from = null; });
    on(canvas, "wheel", (e) => { e.preventDefault(); this.zoom(Math.exp(-e.deltaY / 500)); });
    const keys = (e) => {
      const turns = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] };
      if (turns[e.key]) this.by(...turns[e.key]);
      else if (e.key === "+" || e.key === "=") this.zoom(1.2);
      else if (e.key === "-") this.zoom(1 / 1.2);
      else return;
      e.preventDefault();
      e.stopPropagation();
    };
    on(canvas, "keydown", keys);
    this.controls.querySelectorAll("[data-turn]").forEach((b) => {
      on(b, "keydown", keys);
      on(b, "click", () => {
        [this.turn, this.lean] = STANCES[b.dataset.turn];
        this.fit();
        this.draw();
      });
    });
    const cut = document.getElementById("piece-cut");
    on(cut, "input", () => { cut.nextElementSibling.textContent = cut.value; this.cutAt(Number(cut.value)); });
    on(window, "resize", () => this.resize());
  }

  by(turn, lean) {
    this.turn += turn;
    this.lean = Math.max(-Math.PI / 2, Math.min(Math.PI / 2, this.lean + lean));
    this.draw();
  }

  zoom(times) {
    this.near = Math.max(0.5, Math.min(60, this.near * times));
    this.draw();
  }

  resize() {
    const width = this.stage.clientWidth;
    const height = Math.max(240, Math.min(width * 0.72, window.innerHeight - 240));
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height);
    this.draw();
  }

  // As near as all of it is seen.
  fit() {
    this.near = 1;
    this.aim();
    this.camera.updateMatrixWorld();
    const { min, max } = this.box;
    let most = 0.05;
    for (let i = 0; i < 8; i++) {
      const corner = new this.three.Vector3(i & 1 ? max.x : min.x, i & 2 ? max.y : min.y, i & 4 ? max.z : min.z).project(this.camera);
      most = Math.max(most, Math.abs(corner.x), Math.abs(corner.y));
    }
    this.near = 0.9 / most;
  }

  aim() {
    const { clientWidth: w, clientHeight: h } = this.renderer.domElement;
    const small = this.radius / this.near;
    const x = small * Math.max(1, w / h);
    const y = small * Math.max(1, h / w);
    Object.assign(this.camera, { left: -x, right: x, top: y, bottom: -y, near: 0.01, far: 8 * this.radius });
    // Straight above and beneath, what is behind shows where up is.
    const lean = Math.max(-1.5707, Math.min(1.5707, this.lean));
    const away = new this.three.Vector3(Math.sin(this.turn) * Math.cos(lean), -Math.cos(this.turn) * Math.cos(lean), Math.sin(lean));
    this.camera.position.copy(this.middle).addScaledVector(away, 4 * this.radius);
    this.camera.lookAt(this.middle);
    this.camera.updateProjectionMatrix();
    this.lamp.position.copy(this.camera.position).add(new this.three.Vector3(0, 0, this.radius));
    this.lamp.target.position.copy(this.middle);
  }

  // Drawn when something has changed, and never otherwise.
  draw() {
    if (this.drawing) return;
    this.drawing = requestAnimationFrame(() => {
      this.drawing = 0;
      this.aim();
      this.renderer.render(this.scene, this.camera);
      this.stage.dataset.pictures = Number(this.stage.dataset.pictures ?? 0) + 1;
    });
  }

  point(event) {
    const box = this.renderer.domElement.getBoundingClientRect();
    const at = new this.three.Vector2(2 * (event.clientX - box.left) / box.width - 1, 1 - 2 * (event.clientY - box.top) / box.height);
    const ray = new this.three.Raycaster();
    ray.setFromCamera(at, this.camera);
    const solid = [this.mesh, this.lid].filter(Boolean);
    const hit = ray.intersectObjects(solid).find((h) => h.object === this.lid || h.point.z <= this.plane.constant);
    if (!hit) return;
    // A little behind the surface, where its plastic is.
    const inside = hit.point.clone().addScaledVector(ray.ray.direction, 0.02);
    tell(this.stage.dataset.at, { x: inside.x, y: inside.y, z: inside.z });
  }
}
