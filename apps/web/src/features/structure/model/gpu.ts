import type { Body } from '@clembo/core';
import { LOOK_BYTES } from '@clembo/scene/model';
import * as THREE from 'three';

/** Texels of one element in the texture of looks, and how many elements stand in one row of it. */
const TEXELS = LOOK_BYTES / 4;
const ROW = 256;

// As it is written, without a colour space: what is drawn is shown as it is.
const PAPER = new THREE.Color().setRGB(251 / 255, 250 / 255, 246 / 255, THREE.LinearSRGBColorSpace);

/** A model on the graphics card: one mesh and one set of lines; how elements look is a texture. */
export interface GpuModel {
  faces: THREE.Mesh;
  lines: THREE.LineSegments;
  looks: THREE.DataTexture;
  uniforms: { cut: { value: number }; lift: { value: number }; light: { value: THREE.Vector3 } };
  dispose(): void;
}

/** What the corners tell the points between them. */
const VARYING = /* glsl */ `
  varying vec3 place;
  varying float share;
  varying vec4 first;
  varying vec4 second;
  varying vec4 third;
  varying vec4 fourth;
  varying float own;
`;

const VERTEX = /* glsl */ `
  attribute float element;
  attribute float level;
  attribute float storey;
  uniform sampler2D looks;
  uniform float rows;
  uniform float lift;
  ${VARYING}
  vec4 texel(float k) {
    float row = floor(element / ${ROW}.0);
    float column = (element - row * ${ROW}.0) * ${TEXELS}.0 + k;
    return texture2D(looks, vec2((column + 0.5) / ${ROW * TEXELS}.0, (row + 0.5) / rows));
  }
  void main() {
    first = texel(0.0);
    second = texel(1.0);
    third = texel(2.0);
    fourth = texel(3.0);
    place = position;
    share = level;
    own = element;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(position + vec3(0.0, 0.0, storey * lift), 1.0);
  }
`;

/** Faces: below the fill in one colour, above it in another or not at all; flat light as on the pages. */
const FACES = /* glsl */ `
  uniform float cut;
  uniform vec3 light;
  ${VARYING}
  void main() {
    if (place.z > cut) discard;
    bool low = share <= fourth.r || fourth.r > 0.998;
    vec4 colour = low ? first : second;
    if (colour.a < 0.5) discard;
    if (fourth.g > 0.5 && mod(gl_FragCoord.x + gl_FragCoord.y, 8.0) > 2.0) discard;
    vec3 normal = normalize(cross(dFdx(place), dFdy(place)));
    vec3 view = normalize((viewMatrix * vec4(normal, 0.0)).xyz);
    if (view.z < 0.0) normal = -normal;
    float bright = 0.7 + 0.3 * max(0.0, dot(normal, light));
    gl_FragColor = vec4(colour.rgb * bright, 1.0);
  }
`;

const LINES = /* glsl */ `
  uniform float cut;
  ${VARYING}
  void main() {
    if (place.z > cut || third.a < 0.5) discard;
    if (fourth.a > 0.5 && mod(gl_FragCoord.x + gl_FragCoord.y, 6.0) > 3.0) discard;
    gl_FragColor = vec4(third.rgb, 1.0);
  }
`;

/** Lays a model out for the graphics card. */
export function gpuModel(body: Body, storeys: Float32Array): GpuModel {
  const count = body.cornersOf.length - 1;
  const corners = body.corners.length / 3;
  const element = new Float32Array(corners);
  const level = new Float32Array(corners);
  const storey = new Float32Array(corners);
  for (let e = 0; e < count; e++) {
    const [low, high] = [body.boxes[e * 6 + 2]!, body.boxes[e * 6 + 5]!];
    const tall = Math.max(1e-6, high - low);
    for (let c = body.cornersOf[e]!; c < body.cornersOf[e + 1]!; c++) {
      element[c] = e;
      level[c] = (body.corners[c * 3 + 2]! - low) / tall;
      storey[c] = storeys[e]!;
    }
  }
  const geometry = (index: Uint32Array) => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(body.corners, 3));
    g.setAttribute('element', new THREE.BufferAttribute(element, 1));
    g.setAttribute('level', new THREE.BufferAttribute(level, 1));
    g.setAttribute('storey', new THREE.BufferAttribute(storey, 1));
    g.setIndex(new THREE.BufferAttribute(index, 1));
    return g;
  };
  const rows = Math.max(1, Math.ceil(count / ROW));
  const looks = new THREE.DataTexture(new Uint8Array(rows * ROW * LOOK_BYTES), ROW * TEXELS, rows);
  looks.magFilter = THREE.NearestFilter;
  looks.minFilter = THREE.NearestFilter;
  const uniforms = {
    looks: { value: looks },
    rows: { value: rows },
    cut: { value: 1e9 },
    lift: { value: 0 },
    light: { value: new THREE.Vector3(0, 0, 1) },
  };
  const faceMaterial = new THREE.ShaderMaterial({
    uniforms,
    vertexShader: VERTEX,
    fragmentShader: FACES,
    side: THREE.DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 2,
  });
  const lineMaterial = new THREE.ShaderMaterial({ uniforms, vertexShader: VERTEX, fragmentShader: LINES });
  const [faceGeometry, lineGeometry] = [geometry(body.triangles), geometry(body.edges)];
  const faces = new THREE.Mesh(faceGeometry, faceMaterial);
  const lines = new THREE.LineSegments(lineGeometry, lineMaterial);
  faces.frustumCulled = false;
  lines.frustumCulled = false;
  return {
    faces,
    lines,
    looks,
    uniforms,
    dispose: () => {
      for (const d of [faceGeometry, lineGeometry, faceMaterial, lineMaterial, looks]) d.dispose();
    },
  };
}

/** Puts looks onto the graphics card. */
export function putLooks({ looks }: GpuModel, bytes: Uint8Array): void {
  (looks.image.data as Uint8Array).set(bytes);
  looks.needsUpdate = true;
}

export { PAPER };
