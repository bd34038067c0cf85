package app.yubble.core.setting;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The declared settings of a record.
 *
 * @param <T> the record
 */
public final class Declared<T extends Record> {
    private static final ClassValue<Declared<?>> ALL = new ClassValue<>() {
        @Override
        protected Declared<?> computeValue(Class<?> type) {
            return new Declared<>(type.asSubclass(Record.class));
        }
    };

    /**
     * A component of the record.
     *
     * @param setting null for a part that has settings of its own
     * @param name in files
     * @param isUnfolded whether its own settings stand among those of the record
     */
    public record Item(
            RecordComponent component, @Nullable Setting setting, String name, boolean isUnfolded, boolean isNullable) {
        static Item of(RecordComponent component) {
            Setting setting = component.getAnnotation(Setting.class);
            component.getAccessor().setAccessible(true);
            return new Item(
                    component,
                    setting,
                    setting == null || setting.written().isEmpty() ? component.getName() : setting.written(),
                    component.isAnnotationPresent(Unfolded.class),
                    component.getAnnotatedType().isAnnotationPresent(Nullable.class));
        }

        public Class<?> type() {
            return component.getType();
        }

        public boolean isNumber() {
            return type() == double.class || type() == int.class;
        }

        public boolean holds(double value) {
            Setting range = Objects.requireNonNull(setting);
            return value >= range.least() - range.slack()
                    && (range.below() ? value < range.most() : value <= range.most() + range.slack());
        }

        /** Why a number is refused that does not {@linkplain #holds hold}. */
        public String fault(String called, double value) {
            return called + " must be in " + range() + ", found " + text(value);
        }

        /** The range in words, with the unit. */
        public String range() {
            Setting range = Objects.requireNonNull(setting);
            String sign = range.unit().sign();
            return text(range.least()) + ".." + text(range.most()) + (sign.isEmpty() ? "" : " " + sign)
                    + (range.below() ? ", " + text(range.most()) + " excluded" : "");
        }

        private String words() {
            return setting != null && !setting.called().isEmpty()
                    ? setting.called().toLowerCase(Locale.ROOT)
                    : component.getName().replaceAll("(?=[A-Z])", " ").toLowerCase(Locale.ROOT);
        }
    }

    private final Constructor<T> constructor;
    private final List<Item> items;
    private final Set<String> names;

    private Declared(Class<T> type) {
        RecordComponent[] components = type.getRecordComponents();
        items = Arrays.stream(components).map(Item::of).toList();
        names = items.stream()
                .flatMap(each -> each.isUnfolded()
                        ? of(each.type().asSubclass(Record.class)).names().stream()
                        : Stream.of(each.name()))
                .collect(Collectors.toUnmodifiableSet());
        try {
            constructor = type.getDeclaredConstructor(
                    Arrays.stream(components).map(RecordComponent::getType).toArray(Class<?>[]::new));
            constructor.setAccessible(true);
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException("every record has a canonical constructor", e);
        }
    }

    @SuppressWarnings("unchecked")
    public static <T extends Record> Declared<T> of(Class<T> type) {
        return (Declared<T>) ALL.get(type);
    }

    public List<Item> items() {
        return items;
    }

    /** The names of all fields that the record has in files. */
    public Set<String> names() {
        return names;
    }

    /**
     * For constructors.
     *
     * @param values of all components in their order
     * @throws IllegalArgumentException for the first number out of its range
     */
    public void check(@Nullable Object... values) {
        if (values.length != items.size()) {
            throw new IllegalStateException(constructor.getDeclaringClass() + " checks " + values.length + " of "
                    + items.size() + " components");
        }
        for (int i = 0; i < values.length; i++) {
            Item item = items.get(i);
            if (item.isNumber() && item.setting() != null && values[i] instanceof Number number) {
                if (!item.holds(number.doubleValue())) {
                    throw new IllegalArgumentException(item.fault(item.words(), number.doubleValue()));
                }
            }
        }
    }

    /** A record with what is usual for all of its settings. */
    public static <T extends Record> T usual(Class<T> type) {
        Declared<T> declared = of(type);
        @Nullable Object[] values = new Object[declared.items.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = declared.usual(i, values);
        }
        return declared.make(values);
    }

    /**
     * What a component usually is.
     *
     * @param before the components before it
     */
    public @Nullable Object usual(int index, @Nullable Object[] before) {
        Item item = items.get(index);
        Class<?> type = item.type();
        if (item.isNullable()) {
            return null;
        }
        if (type.isRecord()) {
            return usual(type.asSubclass(Record.class));
        }
        if (type.isEnum()) {
            return type.getEnumConstants()[0];
        }
        if (type == String.class) {
            return "";
        }
        if (type == List.class) {
            return List.of();
        }
        Setting setting = Objects.requireNonNull(item.setting(), item.name());
        double usual = setting.usualBy().isEmpty() ? setting.usual() : usualBy(setting, before);
        if (type == boolean.class) {
            return usual != 0;
        }
        if (type == int.class) {
            return (int) usual;
        }
        return usual;
    }

    private double usualBy(Setting setting, @Nullable Object[] before) {
        for (int i = 0; i < before.length; i++) {
            if (items.get(i).name().equals(setting.usualBy()) && before[i] instanceof Usual decides) {
                return decides.usual();
            }
        }
        return setting.usual();
    }

    /** @throws IllegalArgumentException when the record refuses the values */
    public T make(@Nullable Object[] values) {
        try {
            return constructor.newInstance(values);
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof RuntimeException fault) {
                throw fault;
            }
            throw new IllegalStateException(e);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * A record with another number.
     *
     * @throws IllegalArgumentException when there is no such number, or the record refuses it
     */
    public T with(T from, String name, double number) {
        @Nullable Object[] values = new Object[items.size()];
        boolean found = false;
        for (int i = 0; i < values.length; i++) {
            Item item = items.get(i);
            values[i] = value(from, i);
            if (item.isNumber() && item.name().equals(name)) {
                found = true;
                if (item.type() == int.class && number != Math.rint(number)) {
                    throw new IllegalArgumentException(name + " must be a whole number, found " + text(number));
                }
                values[i] = item.type() == int.class ? (Object) (int) number : (Object) number;
            }
        }
        if (!found) {
            throw new IllegalArgumentException("there is no \"" + name + "\"; there are "
                    + items.stream().filter(Item::isNumber).map(Item::name).collect(Collectors.joining(", ")));
        }
        return make(values);
    }

    /** A record with another value of one component, by its name in Java. */
    public T replaced(T from, String component, Object value) {
        @Nullable Object[] values = new Object[items.size()];
        boolean found = false;
        for (int i = 0; i < values.length; i++) {
            boolean own = items.get(i).component().getName().equals(component);
            found |= own;
            values[i] = own ? value : value(from, i);
        }
        if (!found) {
            throw new IllegalStateException(constructor.getDeclaringClass() + " has no " + component);
        }
        return make(values);
    }

    /** The value of a component. */
    public @Nullable Object value(T from, int index) {
        try {
            return items.get(index).component().getAccessor().invoke(from);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The name of a choice in files. */
    public static String written(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** All names of a choice, as they stand in messages. */
    public static String names(Class<?> choice) {
        return Arrays.stream(choice.getEnumConstants())
                .map(each -> "\"" + written((Enum<?>) each) + "\"")
                .collect(Collectors.joining(", "));
    }

    /** A number as people write it. */
    public static String text(double value) {
        return Double.isFinite(value)
                ? BigDecimal.valueOf(value).stripTrailingZeros().toPlainString()
                : Double.toString(value);
    }
}
