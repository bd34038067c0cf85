package app.yubble.media.recipe;

import app.yubble.core.recipe.Recipe;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import app.yubble.core.setting.Usual;
import app.yubble.core.touchup.Stroke;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/** The table of settings for people, in Markdown. */
final class RecipeTable {
    private final List<String> lines =
            new ArrayList<>(List.of("| field | meaning | range | default |", "|---|---|---|---|"));

    private RecipeTable() {}

    static String text() {
        RecipeTable table = new RecipeTable();
        table.addAll(Declared.of(Recipe.class), "");
        return table.lines.stream().map(line -> line + "\n").collect(Collectors.joining());
    }

    private void addAll(Declared<?> declared, String path) {
        List<Declared.Item> items = declared.items();
        for (int i = 0; i < items.size(); i++) {
            Declared.Item item = items.get(i);
            String own = path + item.name();
            Setting setting = item.setting();
            if (setting != null) {
                lines.add("| `" + own + "` | " + setting.means() + " | " + range(item, setting) + " | "
                        + usual(declared, i, setting) + " |");
            }
            if (item.type().isRecord()) {
                addAll(Declared.of(item.type().asSubclass(Record.class)), item.isUnfolded() ? path : own + ".");
            } else if (item.type() == List.class && FormReader.element(item) == Stroke.class) {
                if (lines.stream().noneMatch(line -> line.startsWith("| `strokes[]."))) {
                    addAll(Declared.of(Stroke.Brush.class), "strokes[].");
                    lines.add(
                            "| `strokes[].points` | x in shares of the width, y of the height, pressure in 0..1, point after"
                                    + " point; at most " + Stroke.MOST_POINTS + " points | x, y -4..4 | |");
                }
            } else if (item.type() == List.class) {
                addAll(Declared.of(FormReader.element(item).asSubclass(Record.class)), own + "[].");
            }
        }
    }

    private static String range(Declared.Item item, Setting setting) {
        if (item.type().isEnum()) {
            return Declared.names(item.type()).replace('"', '`');
        }
        if (!item.isNumber()) {
            return "";
        }
        String what = setting.unit() == Unit.SIDE
                ? " of the longer side"
                : setting.unit() == Unit.NEARNESS ? " nearness" : "";
        return item.range() + what;
    }

    private static String usual(Declared<?> declared, int index, Setting setting) {
        if (declared.items().get(index).name().equals("id")) {
            return "none, it is required";
        }
        if (!setting.usualBy().isEmpty()) {
            return declared.items().stream()
                    .filter(each -> each.name().equals(setting.usualBy()))
                    .flatMap(each -> Arrays.stream(each.type().getEnumConstants()))
                    .map(each ->
                            Declared.text(((Usual) each).usual()) + " for `" + Declared.written((Enum<?>) each) + "`")
                    .collect(Collectors.joining(", "));
        }
        String usual = RecipeSchema.usual(declared, index);
        return usual.equals("null") || usual.equals("[]") || usual.equals("\"\"")
                ? "none"
                : usual.replaceAll("\\.0$", "").replace('"', '`');
    }
}
