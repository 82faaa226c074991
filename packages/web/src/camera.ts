/** The camera of this device, or why there is none. */

export const cameraProblems = ['no-camera', 'refused', 'in-use'] as const;
export type CameraProblem = (typeof cameraProblems)[number];

const problemNames: Readonly<Record<string, CameraProblem>> = {
  NotAllowedError: 'refused',
  SecurityError: 'refused',
  NotFoundError: 'no-camera',
  OverconstrainedError: 'no-camera',
  NotReadableError: 'in-use',
  AbortError: 'in-use',
};

/** The one that looks away from the person. `still`: exposure is fixed where the browser can; it would follow a blinking light. */
export async function openCamera({ still = false } = {}): Promise<MediaStream | CameraProblem> {
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices) return 'no-camera';
  try {
    const stream = await devices.getUserMedia({
      audio: false,
      video: { facingMode: 'environment', frameRate: { ideal: still ? 60 : 30 } },
    });
    const [track] = stream.getVideoTracks();
    const can = track?.getCapabilities() as { exposureMode?: string[] } | undefined;
    if (still && track && can?.exposureMode?.includes('manual')) {
      await track.applyConstraints({ advanced: [{ exposureMode: 'manual' } as MediaTrackConstraintSet] }).catch(() => undefined);
    }
    return stream;
  } catch (error) {
    return problemNames[(error as DOMException).name] ?? 'no-camera';
  }
}
