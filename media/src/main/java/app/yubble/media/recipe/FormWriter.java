package app.yubble.media.recipe;

import app.yubble.core.setting.Declared;
import app.yubble.core.touchup.Stroke;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Writes records as JSON by their declared settings. */
final class FormWriter {
    private final JsonGenerator to;

    FormWriter(JsonGenerator to) {
        this.to = to;
    }

    void write(Record value) {
        to.writeStartObject();
        writeParts(value);
        to.writeEndObject();
    }

    /** What stands between the braces. */
    @SuppressWarnings("unchecked")
    <T extends Record> void writeParts(T value) {
        Declared<T> declared = Declared.of((Class<T>) value.getClass());
        for (int i = 0; i < declared.items().size(); i++) {
            Declared.Item item = declared.items().get(i);
            Object own = declared.value(value, i);
            if (item.isUnfolded() && own instanceof Record part) {
                writeParts(part);
            } else {
                to.writeName(item.name());
                writeValue(own);
            }
        }
    }

    void writeValue(@Nullable Object value) {
        if (value == null) {
            to.writeNull();
        } else if (value instanceof Record part) {
            write(part);
        } else if (value instanceof Stroke stroke) {
            write(stroke);
        } else if (value instanceof Integer number) {
            to.writeNumber(number);
        } else if (value instanceof Double number) {
            to.writeNumber(number);
        } else if (value instanceof Boolean truth) {
            to.writeBoolean(truth);
        } else if (value instanceof Enum<?> choice) {
            to.writeString(Declared.written(choice));
        } else if (value instanceof List<?> list) {
            to.writeStartArray();
            list.forEach(this::writeValue);
            to.writeEndArray();
        } else {
            to.writeString(value.toString());
        }
    }

    void write(Stroke stroke) {
        to.writeStartObject();
        writeParts(stroke.brush());
        to.writeName("points");
        to.writeStartArray();
        for (float each : stroke.points()) {
            to.writeNumber(Math.round(each * FormReader.ROUNDING) / FormReader.ROUNDING);
        }
        to.writeEndArray();
        to.writeEndObject();
    }
}
