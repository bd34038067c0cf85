package app.yubble.server.contract;

import app.yubble.core.setting.Declared;
import app.yubble.server.problem.RefusedException;
import java.util.Arrays;
import java.util.Locale;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.BeanDescription;
import tools.jackson.databind.DeserializationConfig;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JavaType;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.module.SimpleDeserializers;
import tools.jackson.databind.module.SimpleModule;

/** Names of enums in JSON: small letters and hyphens. */
final class Names extends SimpleModule {
    @SuppressWarnings("rawtypes")
    Names() {
        super("names");
        addSerializer(Enum.class, new ValueSerializer<>() {
            @Override
            public void serialize(Enum value, JsonGenerator to, SerializationContext context) {
                to.writeString(Declared.written(value));
            }
        });
    }

    @Override
    public void setupModule(SetupContext context) {
        super.setupModule(context);
        context.addDeserializers(new SimpleDeserializers() {
            @Override
            public ValueDeserializer<?> findEnumDeserializer(
                    JavaType type, DeserializationConfig config, BeanDescription.Supplier description) {
                return new Reading(type.getRawClass());
            }

            @Override
            public boolean hasDeserializerFor(DeserializationConfig config, Class<?> type) {
                return type.isEnum();
            }
        });
    }

    private static final class Reading extends ValueDeserializer<Object> {
        private final Class<?> type;

        Reading(Class<?> type) {
            this.type = type;
        }

        @Override
        public Object deserialize(JsonParser from, DeserializationContext context) {
            String name = from.getValueAsString("");
            return Arrays.stream(type.getEnumConstants())
                    .filter(each -> Declared.written((Enum<?>) each).equals(name))
                    .findFirst()
                    .orElseThrow(() ->
                            new RefusedException("The " + type.getSimpleName().toLowerCase(Locale.ROOT)
                                    + " must be one of " + Declared.names(type) + "; found \"" + name + "\"."));
        }
    }
}
