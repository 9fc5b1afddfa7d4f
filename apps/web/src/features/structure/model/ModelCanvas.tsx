'use client';
import type { Body, Look } from '@clembo/core';
import { type Bounds, cameraOf, elementAt, elementsIn, LOOK_BYTES } from '@clembo/scene/model';
import { Canvas, useFrame, useThree } from '@react-three/fiber';
import { type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { gpuModel, PAPER, putLooks } from './gpu';

interface Props {
  body: Body;
  bounds: Bounds;
  /** How each element is drawn, packed. */
  looks: Uint8Array;
  /** On which storey each element is, counted from the lowest. */
  storeys: Float32Array;
  look: Look;
  label: string;
  onLook: (look: Look) => void;
  /** An element was clicked, −1 for the paper; with `more` it comes to what is chosen. */
  onPoint: (element: number, more: boolean) => void;
  /** Elements were framed. */
  onFrame: (elements: number[], more: boolean) => void;
  onHover?: (element: number, at: { x: number; y: number }) => void;
  /** Chooses by a frame where it is not turned. */
  framing: boolean;
}

/** A frame that takes longer than this does not follow the hand, in milliseconds; and points to a pixel meanwhile. */
const SLOW = 90;
const ROUGH = 0.4;

/** The model in three dimensions, drawn only when something changes; seen as its pages see it. */
export function ModelCanvas(props: Props) {
  const { body, bounds, look, looks, storeys, label, onLook, onPoint, onFrame, onHover, framing } = props;
  const element = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [moving, setMoving] = useState(false);
  const [frame, setFrame] = useState<{ x0: number; y0: number; x1: number; y1: number } | null>(null);
  const hold = useRef<{ x: number; y: number; look: Look; moved: boolean; mode: 'turn' | 'shift' | 'frame' } | null>(
    null,
  );
  useEffect(() => {
    const own = element.current!;
    const watch = new ResizeObserver(() => setSize({ width: own.clientWidth, height: own.clientHeight }));
    watch.observe(own);
    return () => watch.disconnect();
  }, []);
  const camera = useMemo(
    () => (size.width > 0 && size.height > 0 ? cameraOf(look, bounds, size.width, size.height) : null),
    [look, bounds, size],
  );
  const seen = useMemo(() => {
    const solid = new Uint8Array(looks.length / LOOK_BYTES);
    for (let e = 0; e < solid.length; e++)
      solid[e] = looks[e * LOOK_BYTES + 3]! > 0 || looks[e * LOOK_BYTES + 11]! > 0 ? 1 : 0;
    return {
      body,
      solid,
      lifted: look.lift === 0 ? null : storeys.map((s) => s * look.lift),
      cut: look.cut,
    };
  }, [body, looks, storeys, look.lift, look.cut]);

  const shareOf = (e: PointerEvent) => {
    const box = element.current!.getBoundingClientRect();
    return { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height };
  };
  const down = (e: PointerEvent) => {
    if (!camera) return;
    element.current!.setPointerCapture(e.pointerId);
    const mode = framing || e.altKey ? 'frame' : e.button === 2 || e.shiftKey ? 'shift' : 'turn';
    hold.current = { x: e.clientX, y: e.clientY, look, moved: false, mode };
  };
  const move = (e: PointerEvent) => {
    const held = hold.current;
    if (!held) {
      if (onHover && camera) {
        const at = shareOf(e);
        onHover(elementAt(seen, camera, at.x, at.y), { x: at.x * size.width, y: at.y * size.height });
      }
      return;
    }
    const [dx, dy] = [e.clientX - held.x, e.clientY - held.y];
    if (!held.moved && Math.hypot(dx, dy) < 4) return;
    held.moved = true;
    if (held.mode !== 'frame') setMoving(true);
    if (held.mode === 'frame') {
      const box = element.current!.getBoundingClientRect();
      const [x, y] = [held.x - box.left, held.y - box.top];
      setFrame({ x0: Math.min(x, x + dx), y0: Math.min(y, y + dy), x1: Math.max(x, x + dx), y1: Math.max(y, y + dy) });
    } else if (held.mode === 'turn') {
      const turn = held.look.turn - dx * 0.35;
      onLook({
        ...held.look,
        turn: Math.round((((turn + 540) % 360) - 180) * 2) / 2,
        height: Math.round(Math.max(-89, Math.min(90, held.look.height + dy * 0.3)) * 2) / 2,
      });
    } else if (camera) {
      const metres = camera.width / size.width;
      const from = held.look.middle ?? camera.middle;
      const middle = [0, 1, 2].map((k) => from[k]! - camera.right[k]! * dx * metres + camera.up[k]! * dy * metres);
      onLook({ ...held.look, middle: middle as [number, number, number], span: held.look.span ?? camera.width });
    }
  };
  const up = (e: PointerEvent) => {
    const held = hold.current;
    hold.current = null;
    setMoving(false);
    if (!held || !camera) return;
    const more = e.shiftKey || e.ctrlKey || e.metaKey;
    if (held.mode === 'frame' && frame) {
      setFrame(null);
      const [w, h] = [size.width, size.height];
      onFrame(
        elementsIn(seen, camera, { x0: frame.x0 / w, y0: frame.y0 / h, x1: frame.x1 / w, y1: frame.y1 / h }),
        more,
      );
    } else if (!held.moved) {
      const at = shareOf(e);
      onPoint(elementAt(seen, camera, at.x, at.y), more);
    }
  };
  const zoom = (by: number) => {
    if (!camera) return;
    const span = Math.max(0.5, (look.span ?? camera.width) * by);
    onLook({ ...look, middle: (look.middle ?? camera.middle) as [number, number, number], span });
  };
  useEffect(() => {
    const own = element.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      zoom(Math.exp(Math.max(-1, Math.min(1, e.deltaY / 240))));
    };
    own.addEventListener('wheel', wheel, { passive: false });
    return () => own.removeEventListener('wheel', wheel);
  });

  return (
    <div
      ref={element}
      role="img"
      aria-label={label}
      data-testid="model-view"
      className={`relative h-full min-h-0 w-full touch-none overflow-hidden outline-none ${framing ? 'cursor-crosshair' : 'cursor-grab'}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerLeave={() => onHover?.(-1, { x: 0, y: 0 })}
      onContextMenu={(e) => e.preventDefault()}
    >
      {camera && (
        <Canvas
          frameloop="demand"
          flat
          linear
          orthographic
          dpr={[1, 2]}
          gl={{ antialias: true, alpha: false, preserveDrawingBuffer: true }}
          resize={{ debounce: 0 }}
          style={{ pointerEvents: 'none' }}
        >
          <Model body={body} looks={looks} storeys={storeys} look={look} camera={camera} moving={moving} />
        </Canvas>
      )}
      {frame && (
        <div
          className="pointer-events-none absolute border border-marigold bg-marigold/15"
          style={{ left: frame.x0, top: frame.y0, width: frame.x1 - frame.x0, height: frame.y1 - frame.y0 }}
        />
      )}
    </div>
  );
}

function Model({
  body,
  looks,
  storeys,
  look,
  camera: seen,
  moving,
}: Pick<Props, 'body' | 'looks' | 'storeys' | 'look'> & { camera: ReturnType<typeof cameraOf>; moving: boolean }) {
  const { set, setDpr, invalidate, scene, size } = useThree();
  const model = useMemo(() => gpuModel(body, storeys), [body, storeys]);
  const slow = useRef({ last: 0, is: false });
  useFrame(() => {
    const now = performance.now();
    if (moving && slow.current.last > 0 && now - slow.current.last > SLOW && !slow.current.is) {
      // Where drawing does not follow the hand, it is drawn roughly for as long as it moves.
      slow.current.is = true;
      model.lines.visible = false;
      setDpr(ROUGH);
    }
    slow.current.last = moving ? now : 0;
  });
  useEffect(() => {
    if (moving || !slow.current.is) return;
    slow.current = { last: 0, is: false };
    model.lines.visible = true;
    setDpr(Math.min(2, window.devicePixelRatio));
    invalidate();
  });
  useEffect(() => () => model.dispose(), [model]);
  useEffect(() => {
    scene.background = PAPER;
  }, [scene]);
  useEffect(() => {
    putLooks(model, looks);
    invalidate();
  }, [model, looks, invalidate]);
  useEffect(() => {
    const { middle: m, ahead: a, up, right, width, height, distance } = seen;
    const reach = 4000;
    const camera =
      distance === null
        ? new THREE.OrthographicCamera(-width / 2, width / 2, height / 2, -height / 2, 0, reach * 2)
        : new THREE.PerspectiveCamera(
            (2 * Math.atan(height / 2 / distance) * 180) / Math.PI,
            width / height,
            Math.max(0.05, distance / 200),
            reach,
          );
    const back = distance ?? reach;
    camera.position.set(m[0] - a[0] * back, m[1] - a[1] * back, m[2] - a[2] * back);
    camera.matrixAutoUpdate = true;
    camera.up.set(up[0], up[1], up[2]);
    camera.lookAt(m[0], m[1], m[2]);
    camera.updateMatrixWorld();
    camera.updateProjectionMatrix();
    const light = new THREE.Vector3(
      -0.35 * right[0] + 0.5 * up[0] - 0.45 * a[0],
      -0.35 * right[1] + 0.5 * up[1] - 0.45 * a[1],
      -0.35 * right[2] + 0.5 * up[2] - 0.45 * a[2] + 0.6,
    ).normalize();
    model.uniforms.light.value = light;
    model.uniforms.cut.value = look.cut ?? 1e9;
    model.uniforms.lift.value = look.lift;
    // The camera is worked out anew for every proportion: nobody else may stretch it.
    Object.assign(camera, { manual: true });
    set({ camera: camera as never });
    invalidate();
  }, [seen, model, look.cut, look.lift, set, invalidate, size]);
  return (
    <>
      <primitive object={model.faces} />
      <primitive object={model.lines} />
    </>
  );
}
