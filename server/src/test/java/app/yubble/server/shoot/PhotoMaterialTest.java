package app.yubble.server.shoot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.Kin;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.server.storage.FileStore;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class PhotoMaterialTest {
    private static final Size SIZE = new Size(30, 20);

    private final Map<String, byte[]> files = new HashMap<>();

    private String stored(String name, Plane plane) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PictureWriter.writeGrey(plane, out);
        files.put(name, out.toByteArray());
        return name;
    }

    private static Plane slope(Size size, float times) {
        Plane out = new Plane(size);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = times * i / out.samples().length;
        }
        return out;
    }

    private PhotoMaterial material(DepthMap... maps) throws IOException {
        Shot shot = mock(Shot.class);
        when(shot.size()).thenReturn(SIZE);
        FileStore store = mock(FileStore.class);
        when(store.bytes(anyString())).thenAnswer(call -> files.get(call.<String>getArgument(0)));
        return new PhotoMaterial(shot, List.of(maps), store, PictureReader.DEFAULT);
    }

    private DepthMap map(DepthChoice.Source source, String content, @Nullable String sure, @Nullable String kin) {
        DepthMap map = new DepthMap(UUID.randomUUID(), source);
        Quality quality = source == DepthChoice.Source.ESTIMATED ? Quality.BEST : null;
        map.replace(new DepthMap.Content("test", content, SIZE, null, null, sure, kin, quality, null, null));
        return map;
    }

    @Test
    void whatTheEstimateKnowsOfPlacesIsReadForOtherMapsToo() throws IOException {
        Plane tiles = slope(new Size(8, 8 * Kin.PARTS), 1);
        String kin = stored("kin", tiles);
        String sure = stored("sure", slope(new Size(15, 10), 0.5f));
        DepthMap estimated = map(DepthChoice.Source.ESTIMATED, stored("map", slope(SIZE, 1)), sure, kin);
        DepthMap file = map(DepthChoice.Source.FILE, stored("file", slope(SIZE, 0.3f)), null, null);
        PhotoMaterial both = material(estimated, file);
        DepthEstimate found = both.depth(DepthChoice.Source.ESTIMATED);
        assertThat(found.sure().at(14, 9)).isBetween(0.49f, 0.5f);
        for (DepthChoice.Source source : List.of(DepthChoice.Source.ESTIMATED, DepthChoice.Source.FILE)) {
            Plane read = both.depth(source).kin().tiles();
            assertThat(read.size()).isEqualTo(tiles.size());
            for (int i = 0; i < read.samples().length; i += 37) {
                assertThat(Math.abs(read.samples()[i] - tiles.samples()[i])).isLessThan(1e-4f);
            }
        }
        PhotoMaterial alone = material(file);
        assertThat(alone.depth(DepthChoice.Source.FILE).kin()).isNull();
        // What is worked out of a map is kept under its name.
        assertThat(alone.depthId(DepthChoice.Source.FILE)).isNotEqualTo(both.depthId(DepthChoice.Source.FILE));
    }
}
