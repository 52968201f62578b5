/** A button that asks for a picture: the camera on a device that has one. */
export function PictureButton({ words, onFile }: { words: string; onFile: (file: File) => void }) {
  return (
    <label className="action mt-1">
      {words}
      <input
        type="file"
        accept="image/*"
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
