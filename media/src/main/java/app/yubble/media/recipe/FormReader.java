package app.yubble.media.recipe;

import app.yubble.core.setting.Declared;
import app.yubble.core.touchup.Stroke;
import java.lang.reflect.ParameterizedType;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;

/** Makes records of JSON by their declared settings. Goes on after a fault, so that all are found. */
final class FormReader {
    /** Places in a picture are written to a hundred thousandth of its side. */
    static final double ROUNDING = 1e5;
    // Half a pixel of a picture 25 000 pixels wide.
    private static final double TOLERANCE = 2e-5;
    private static final int MOST_FAULTS = 20;
    private static final String POINTS = "points";
    private static final Pattern NUMBER = Pattern.compile("[-+]?\\d{1,9}(\\.\\d{0,18})?([eE][-+]?\\d{1,2})?");

    private final boolean lenient;
    private final List<String> faults = new ArrayList<>();

    /** @param lenient takes numbers and truths that are written as texts, and of a number that is not whole what is */
    FormReader(boolean lenient) {
        this.lenient = lenient;
    }

    /** The faults so far, with where they are. */
    List<String> faults() {
        return faults.size() <= MOST_FAULTS
                ? List.copyOf(faults)
                : Stream.concat(
                                faults.stream().limit(MOST_FAULTS),
                                Stream.of("and " + (faults.size() - MOST_FAULTS) + " more"))
                        .toList();
    }

    /**
     * A record.
     *
     * @param path of the node, empty for the outermost
     * @return null when it has faults
     */
    <T extends Record> @Nullable T read(Class<T> type, JsonNode node, String path) {
        return read(type, node, path, "");
    }

    /** @param beside the name of a field that is read apart */
    private <T extends Record> @Nullable T read(Class<T> type, JsonNode node, String path, String beside) {
        if (!node.isObject()) {
            return fault((path.isEmpty() ? "the recipe" : path) + " must be an object");
        }
        Set<String> known = Declared.of(type).names();
        int before = faults.size();
        for (String name : node.propertyNames()) {
            if (!known.contains(name) && !name.equals(beside)) {
                fault("unknown field \"" + inside(path, name) + "\"");
            }
        }
        T made = parts(type, node, path);
        return faults.size() > before ? null : made;
    }

    private <T extends Record> @Nullable T parts(Class<T> type, JsonNode node, String path) {
        Declared<T> declared = Declared.of(type);
        List<Declared.Item> items = declared.items();
        int before = faults.size();
        @Nullable Object[] values = new Object[items.size()];
        for (int i = 0; i < values.length; i++) {
            Declared.Item item = items.get(i);
            JsonNode own = meant(item.type(), node.get(item.name()));
            if (item.isUnfolded()) {
                values[i] = parts(item.type().asSubclass(Record.class), node, path);
            } else if (own == null || own.isNull()) {
                values[i] = declared.usual(i, values);
            } else {
                values[i] = value(item, own, inside(path, item.name()));
            }
        }
        if (faults.size() > before) {
            return null;
        }
        try {
            return declared.make(values);
        } catch (IllegalArgumentException fault) {
            return fault(path.isEmpty() ? fault.getMessage() : path + ": " + fault.getMessage());
        }
    }

    private @Nullable JsonNode meant(Class<?> type, @Nullable JsonNode node) {
        if (!lenient || node == null || !node.isString()) {
            return node;
        }
        String text = node.stringValue().strip();
        if (type == boolean.class && (text.equals("true") || text.equals("false"))) {
            return JsonNodeFactory.instance.booleanNode(text.equals("true"));
        }
        if ((type == double.class || type == int.class) && NUMBER.matcher(text).matches()) {
            return JsonNodeFactory.instance.numberNode(Double.parseDouble(text));
        }
        return text.isEmpty() && type.isPrimitive() ? null : node;
    }

    private @Nullable Object value(Declared.Item item, JsonNode node, String path) {
        Class<?> type = item.type();
        if (type.isRecord()) {
            return read(type.asSubclass(Record.class), node, path);
        }
        if (item.isNumber()) {
            return number(item, node, path);
        }
        if (type == boolean.class) {
            return node.isBoolean() ? (Object) node.booleanValue() : fault(path + " must be true or false");
        }
        if (type == String.class) {
            return node.isString() ? node.stringValue() : fault(path + " must be a text");
        }
        if (type.isEnum()) {
            return choice(type, node, path);
        }
        return list(element(item), node, path);
    }

    private @Nullable Object number(Declared.Item item, JsonNode node, String path) {
        boolean whole = item.type() == int.class;
        if (!node.isNumber() || whole && !lenient && !node.canConvertToInt()) {
            return fault(path + " must be a " + (whole ? "whole number" : "number"));
        }
        double value = node.doubleValue();
        if (!item.holds(value)) {
            return fault(item.fault(path, value));
        }
        return whole ? (Object) (int) value : (Object) value;
    }

    private @Nullable Object choice(Class<?> type, JsonNode node, String path) {
        Object found = Arrays.stream(type.getEnumConstants())
                .filter(each ->
                        node.isString() && Declared.written((Enum<?>) each).equals(node.stringValue()))
                .findFirst()
                .orElse(null);
        return found != null ? found : fault(path + " must be one of " + Declared.names(type) + ", found " + node);
    }

    static Class<?> element(Declared.Item item) {
        ParameterizedType list = (ParameterizedType) item.component().getGenericType();
        return (Class<?>) list.getActualTypeArguments()[0];
    }

    private @Nullable List<Object> list(Class<?> element, JsonNode node, String path) {
        if (!node.isArray()) {
            return fault(path + " must be a list");
        }
        List<Object> all = new ArrayList<>();
        for (int i = 0; i < node.size(); i++) {
            String place = path + "[" + i + "]";
            Object each = element == Stroke.class
                    ? stroke(node.path(i), place)
                    : read(element.asSubclass(Record.class), node.path(i), place);
            if (each != null) {
                all.add(each);
            }
        }
        return all;
    }

    /** A stroke's brush and its points stand in one object. */
    private @Nullable Stroke stroke(JsonNode node, String path) {
        Stroke.Brush brush = read(Stroke.Brush.class, node, path, POINTS);
        float[] places = node.isObject() ? places(node.path(POINTS), path + "." + POINTS) : null;
        if (brush == null || places == null) {
            return null;
        }
        try {
            return new Stroke(
                    brush,
                    places.length > Stroke.VALUES * Stroke.MOST_POINTS && places.length % Stroke.VALUES == 0
                            ? Stroke.simplified(places, 1, TOLERANCE)
                            : places);
        } catch (IllegalArgumentException fault) {
            return fault(path + ": " + fault.getMessage());
        }
    }

    private float @Nullable [] places(JsonNode points, String path) {
        if (!points.isArray()) {
            return fault(path + " must be a list of numbers");
        }
        if (points.size() > Stroke.VALUES * Stroke.MOST_RAW_POINTS) {
            return fault(path + " has more than " + Stroke.MOST_RAW_POINTS + " points");
        }
        float[] to = new float[points.size()];
        for (int i = 0; i < to.length; i++) {
            JsonNode each = meant(double.class, points.path(i));
            if (each == null || !each.isNumber()) {
                return fault(path + " must be a list of numbers");
            }
            to[i] = (float) (Math.round(each.doubleValue() * ROUNDING) / ROUNDING);
        }
        return to;
    }

    private static String inside(String path, String name) {
        return path.isEmpty() ? name : path + "." + name;
    }

    private <T> @Nullable T fault(@Nullable String message) {
        faults.add(Objects.requireNonNullElse(message, "the recipe cannot be read"));
        return null;
    }
}
