import { schema } from "@vennet/core/manuscript/schema";
import { writableValue } from "@vennet/core/manuscript/writable-text";
import { Slice } from "prosemirror-model";
import { Plugin } from "prosemirror-state";

/**
 * What is pasted comes without signs that no file can hold; lines that programs break by such signs stay lines, and
 * outside of listings tabs are blanks.
 */
export const writablePaste = new Plugin({
  props: {
    transformPastedText(text, _isPlain, { state }) {
      const lines = text.replace(/[\v\f\u2028\u2029]/g, "\n");
      return state.selection.$from.parent.type.spec.code ? lines : lines.replace(/\t/g, " ");
    },
    transformPasted(slice) {
      const json: unknown = slice.toJSON();
      const writable = writableValue(json);
      return writable === json ? slice : Slice.fromJSON(schema, writable);
    },
  },
});
