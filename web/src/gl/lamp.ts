/** A height map under a lamp that moves, drawn by WebGL. Knows neither the API nor Svelte. */

export interface Heights {
  rows: number;
  columns: number;
  spacingUm: number;
  /** In micrometres, row by row. */
  z: Float32Array;
  colour: [number, number, number];
  body: number;
  /** The share of light that it throws back as a mirror does. */
  reflected: number;
}

/** How it is lit, by the names and figures of the catalogue. */
export type Light = Record<string, number>;

export interface View {
  /** Of the lamp above the surface and around it, degrees. */
  height: number;
  direction: number;
  /** The part tilted to the right and towards the eye, degrees. */
  tiltX: number;
  tiltY: number;
  magnify: number;
  mirror: 'none' | 'grid' | 'bulb';
}

/** The lamp where it stands in the still pictures. */
export const atFirst = (light: Light): View => ({
  height: light.height ?? 0,
  direction: light.direction ?? 0,
  tiltX: 0,
  tiltY: 0,
  magnify: 1,
  mirror: 'none',
});

const VERTEX = `#version 300 es
in vec2 at; out vec2 uv;
void main() { uv = at * 0.5 + 0.5; gl_Position = vec4(at, 0.0, 1.0); }`;

/** Figures of the light that the shader takes; the lamp's place comes with the view. */
const FIGURES = [
  ...['lamp', 'dull', 'glint', 'sharpness', 'white', 'room', 'above', 'near', 'fall', 'gamma'],
  ...['tube', 'tube_at', 'tube_lean', 'tube_bend', 'tube_width', 'tube_blur'],
  ...['mirror_bend', 'mirror_edge', 'mirror_blur', 'mirror_dark', 'mirror_light'],
];

// The same light as the still pictures (kelbrast.core.simulation.light; a test holds the two together), with what a mirror
// shows instead of the lamp tube.
const FRAGMENT = `#version 300 es
precision highp float;
precision highp sampler2D;
uniform sampler2D heights; uniform vec2 size; uniform float spacing;
uniform vec3 colour; uniform float body; uniform float reflected;
uniform vec3 toLamp; uniform vec2 tilt; uniform float magnify; uniform int mirror;
uniform float ${FIGURES.map((name) => `light_${name}`).join(', ')};
in vec2 uv; out vec4 shown;
float z(vec2 p) {
  vec2 q = clamp(p, vec2(0.5), size - 1.5);
  ivec2 i = ivec2(floor(q)); vec2 f = fract(q);
  float a = texelFetch(heights, i, 0).r, b = texelFetch(heights, i + ivec2(1, 0), 0).r;
  float c = texelFetch(heights, i + ivec2(0, 1), 0).r, d = texelFetch(heights, i + ivec2(1, 1), 0).r;
  return mix(mix(a, b, f.x), mix(c, d, f.x), f.y);
}
void main() {
  vec2 p = (vec2(uv.x, 1.0 - uv.y) - 0.5) / magnify * (size - 1.0) + 0.5 * (size - 1.0);
  float dx = (z(p + vec2(1.0, 0.0)) - z(p - vec2(1.0, 0.0))) / (2.0 * spacing);
  float dy = -(z(p + vec2(0.0, 1.0)) - z(p - vec2(0.0, 1.0))) / (2.0 * spacing);
  vec3 normal = normalize(vec3(-dx + tilt.x, -dy + tilt.y, 1.0));
  vec3 halfway = normalize(toLamp + vec3(0.0, 0.0, 1.0));
  float facing = clamp(dot(toLamp, normal), 0.0, 1.0);
  float mirrored = pow(clamp(dot(halfway, normal), 0.0, 1.0), light_sharpness);
  float room = light_room + light_above * normal.y + light_near - light_fall * uv.x;
  float shiny = 1.0 - body;
  float light = light_lamp * facing * (body + light_dull * shiny) + light_glint * shiny * mirrored + room;
  if (mirror == 0) {
    float across = uv.x + light_tube_lean * (1.0 - 2.0 * uv.y);
    float away = (across - light_tube_at + light_tube_bend * (dx - tilt.x)) / (light_tube_width + light_tube_blur * (1.0 - reflected));
    light += light_tube * reflected * exp(-away * away);
  } else {
    vec2 away = (uv - 0.5) * 2.0 + light_mirror_bend * normal.xy;
    float blur = light_mirror_edge + light_mirror_blur * (1.0 - reflected);
    float seen;
    if (mirror == 1) {
      vec2 cell = abs(fract(away * 3.0) - 0.5) * 2.0;
      vec2 line = smoothstep(0.82 - blur, 0.82 + blur, cell);
      seen = 1.0 - max(line.x, line.y);
    } else {
      seen = 1.4 * smoothstep(0.35 + blur, 0.35 - blur, length(away - vec2(0.25, 0.2)));
    }
    light = mix(light, light_mirror_dark + light_mirror_light * seen, reflected);
  }
  float white = light_white * mirrored;
  vec3 bright = light * (colour * (1.0 - white) + white);
  shown = vec4(pow(clamp(bright, 0.0, 1.0), vec3(1.0 / light_gamma)), 1.0);
}`;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Where the lamp is, as a direction of length 1. */
export function lampAt(view: Pick<View, 'height' | 'direction'>): [number, number, number] {
  const low = Math.cos(radians(view.height));
  return [
    low * Math.cos(radians(view.direction)),
    low * Math.sin(radians(view.direction)),
    Math.sin(radians(view.height)),
  ];
}

/** The lamp moved by so many degrees; it never goes below the surface or over the top. */
export function moved(view: View, up: number, around: number): View {
  const height = Math.min(85, Math.max(4, view.height + up));
  const direction = (((view.direction + around) % 360) + 360) % 360;
  return { ...view, height, direction };
}

/** Draws on a canvas, again and again; null where there is no WebGL. */
export function lampOn(
  canvas: HTMLCanvasElement,
  heights: Heights,
  light: Light,
): { draw: (view: View) => void; end: () => void } | null {
  const gl = canvas.getContext('webgl2', { preserveDrawingBuffer: true });
  if (!gl) return null;
  const program = gl.createProgram();
  for (const [kind, source] of [
    [gl.VERTEX_SHADER, VERTEX],
    [gl.FRAGMENT_SHADER, FRAGMENT],
  ] as const) {
    const shader = gl.createShader(kind);
    if (!shader) return null;
    gl.shaderSource(shader, source);
    gl.compileShader(shader);
    gl.attachShader(program, shader);
  }
  gl.linkProgram(program);
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return null;
  gl.useProgram(program);
  gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
  gl.bufferData(gl.ARRAY_BUFFER, new Float32Array([-1, -1, 3, -1, -1, 3]), gl.STATIC_DRAW);
  const place = gl.getAttribLocation(program, 'at');
  gl.enableVertexAttribArray(place);
  gl.vertexAttribPointer(place, 2, gl.FLOAT, false, 0, 0);
  gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.R32F, heights.columns, heights.rows, 0, gl.RED, gl.FLOAT, heights.z);
  for (const which of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
    gl.texParameteri(gl.TEXTURE_2D, which, gl.NEAREST);
  const at = (name: string) => gl.getUniformLocation(program, name);
  gl.uniform2f(at('size'), heights.columns, heights.rows);
  gl.uniform1f(at('spacing'), heights.spacingUm);
  gl.uniform3f(at('colour'), ...heights.colour);
  gl.uniform1f(at('body'), heights.body);
  gl.uniform1f(at('reflected'), heights.reflected);
  for (const name of FIGURES) gl.uniform1f(at(`light_${name}`), light[name] ?? 0);
  return {
    draw(view) {
      gl.viewport(0, 0, canvas.width, canvas.height);
      gl.uniform3f(at('toLamp'), ...lampAt(view));
      gl.uniform2f(at('tilt'), Math.tan(radians(view.tiltX)), Math.tan(radians(view.tiltY)));
      gl.uniform1f(at('magnify'), view.magnify);
      gl.uniform1i(at('mirror'), { none: 0, grid: 1, bulb: 2 }[view.mirror]);
      gl.drawArrays(gl.TRIANGLES, 0, 3);
    },
    end() {
      gl.getExtension('WEBGL_lose_context')?.loseContext();
    },
  };
}
