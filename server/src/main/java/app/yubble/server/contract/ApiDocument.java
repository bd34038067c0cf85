package app.yubble.server.contract;

import app.yubble.core.setting.Declared;
import app.yubble.media.recipe.RecipeModule;
import app.yubble.media.recipe.RecipeSchema;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.type.TypeFactory;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json31;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.JsonSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Makes the OpenAPI document say all that holds: what is always there, what can be null, which names there are, and how faults look. */
@Configuration
class ApiDocument {
    private static final String SCHEMAS = "#/components/schemas/";
    private static final String OURS = "app.yubble.";

    @Bean
    JsonMapperBuilderCustomizer names() {
        return builder -> builder.addModules(new RecipeModule(), new Names());
    }

    /** What is not annotated as nullable is always there; enums have the names that they have in JSON. */
    @Bean
    ModelConverter records() {
        return new Records();
    }

    private static final class Records implements ModelConverter {
        @Override
        public @Nullable Schema<?> resolve(
                AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
            Class<?> raw =
                    TypeFactory.defaultInstance().constructType(type.getType()).getRawClass();
            if (RecipeSchema.parts().contains(raw)) {
                return new JsonSchema().$ref(SCHEMAS + raw.getSimpleName());
            }
            if (raw.isEnum() && raw.getName().startsWith(OURS)) {
                return named(raw);
            }
            if (!chain.hasNext()) {
                return null;
            }
            Schema<?> found = chain.next().resolve(type, context, chain);
            String name = found != null && found.get$ref() != null
                    ? found.get$ref().substring(SCHEMAS.length())
                    : raw.getSimpleName();
            Schema<?> model = context.getDefinedModels().get(name);
            if (raw.isRecord() && raw.getName().startsWith(OURS) && model != null && model.getProperties() != null) {
                complete(model, raw);
            }
            return found;
        }

        private static Schema<?> named(Class<?> names) {
            JsonSchema schema = new JsonSchema();
            schema.addType("string");
            for (Object each : names.getEnumConstants()) {
                schema.addEnumItemObject(Declared.written((Enum<?>) each));
            }
            return schema;
        }

        private static void complete(Schema<?> model, Class<?> type) {
            List<String> always = new ArrayList<>();
            for (RecordComponent each : type.getRecordComponents()) {
                Schema<?> property = model.getProperties().get(each.getName());
                if (property == null) {
                    continue;
                }
                if (each.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
                    model.getProperties().put(each.getName(), nullable(property));
                } else {
                    always.add(each.getName());
                }
            }
            model.setRequired(always.isEmpty() ? null : always);
        }

        private static Schema<?> nullable(Schema<?> property) {
            if (property.get$ref() != null) {
                JsonSchema none = new JsonSchema();
                none.addType("null");
                JsonSchema either = new JsonSchema();
                either.setAnyOf(List.of(property, none));
                return either;
            }
            Set<String> types = new LinkedHashSet<>();
            if (property.getTypes() != null) {
                types.addAll(property.getTypes());
            } else if (property.getType() != null) {
                types.add(property.getType());
            }
            types.add("null");
            property.setTypes(types);
            if (property.getEnum() != null && !property.getEnum().contains(null)) {
                property.addEnumItemObject(null);
            }
            return property;
        }
    }

    @Bean
    OpenApiCustomizer whole() {
        return document -> {
            document.setInfo(new Info()
                    .title("Yubble")
                    .version("1")
                    .description("Everything that the page does. Sign in first; see the example in README.md."));
            completeAnswers(document);
            addRecipe(document);
            addFaults(document);
        };
    }

    /** An answer has all its fields; one that is null is there all the same. */
    private static void completeAnswers(OpenAPI document) {
        Set<String> answers = new LinkedHashSet<>();
        document.getPaths().values().stream()
                .flatMap(path -> path.readOperations().stream())
                .flatMap(operation -> operation.getResponses().values().stream())
                .filter(response -> response.getContent() != null)
                .flatMap(response -> response.getContent().values().stream())
                .forEach(content -> collect(document, content.getSchema(), answers));
        for (String name : answers) {
            Schema<?> answer = document.getComponents().getSchemas().get(name);
            if (answer != null && answer.getProperties() != null) {
                answer.setRequired(List.copyOf(answer.getProperties().keySet()));
            }
        }
    }

    private static void collect(OpenAPI document, @Nullable Schema<?> from, Set<String> into) {
        if (from == null) {
            return;
        }
        if (from.get$ref() != null) {
            String name = from.get$ref().substring(SCHEMAS.length());
            if (into.add(name)) {
                collect(document, document.getComponents().getSchemas().get(name), into);
            }
        }
        collect(document, from.getItems(), into);
        if (from.getAnyOf() != null) {
            from.getAnyOf().forEach(each -> collect(document, each, into));
        }
        if (from.getProperties() != null) {
            from.getProperties().values().forEach(each -> collect(document, each, into));
        }
    }

    private static void addRecipe(OpenAPI document) {
        RecipeSchema.definitions(SCHEMAS).forEach((name, definition) -> {
            try {
                document.getComponents()
                        .addSchemas(name, Json31.mapper().readValue(definition.toString(), JsonSchema.class));
            } catch (JsonProcessingException e) {
                throw new IllegalStateException("the schema of recipes cannot be read", e);
            }
        });
    }

    private static void addFaults(OpenAPI document) {
        JsonSchema problem = new JsonSchema();
        problem.addType("object");
        problem.description("What went wrong: `type` for programs, `detail` for people.");
        for (String name : List.of("type", "title", "detail", "instance")) {
            problem.addProperty(name, text());
        }
        JsonSchema status = new JsonSchema();
        status.addType("integer");
        problem.addProperty("status", status);
        JsonSchema faults = new JsonSchema();
        faults.addType("array");
        faults.setItems(text());
        faults.description("all that is wrong with a recipe");
        problem.addProperty("faults", faults);
        problem.setRequired(List.of("title", "status"));
        document.getComponents().addSchemas("Problem", problem);
        ApiResponse fault = new ApiResponse()
                .description(
                        "401 not signed in, 403 without the token, 404 not there or not yours, 409 changed in the meantime,"
                                + " 413 too large, 422 refused with the reason, 429 too often, 503 the database is away")
                .content(new Content()
                        .addMediaType(
                                "application/problem+json",
                                new MediaType().schema(new JsonSchema().$ref(SCHEMAS + "Problem"))));
        document.getPaths().values().stream()
                .flatMap(path -> path.readOperations().stream())
                .forEach(operation -> operation.getResponses().addApiResponse("default", fault));
    }

    private static JsonSchema text() {
        JsonSchema text = new JsonSchema();
        text.addType("string");
        return text;
    }
}
