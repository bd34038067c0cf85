package app.yubble.server.shoot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.FaceFinder;
import app.yubble.vision.FaceNetworks;
import app.yubble.vision.ModelFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FacesTest {
    private static final Size SIZE = new Size(64, 48);
    private static final Face FACE =
            new Face(0.3, 0.2, 0.2, 0.3, new Face.Point(0.35, 0.3), new Face.Point(0.45, 0.3), 1);

    @TempDir
    Path folder;

    private static Faces with(FaceFinder finder) {
        return new Faces(finder, new RefocusLine(StageCache.keepingAll()));
    }

    private static ShotStill still(String id) {
        ShotStill still = mock(ShotStill.class);
        when(still.id()).thenReturn(id);
        when(still.size()).thenReturn(SIZE);
        when(still.kept(SIZE)).thenReturn(SIZE);
        when(still.picture(SIZE)).thenReturn(Picture.blank(SIZE));
        return still;
    }

    @Test
    void aPictureIsLookedAtOnce() {
        AtomicInteger looks = new AtomicInteger();
        Faces faces = with((picture, progress) -> {
            looks.incrementAndGet();
            return List.of(FACE);
        });
        assertThat(faces.of(still("a"))).containsExactly(FACE);
        assertThat(faces.of(still("a"), Picture.blank(SIZE))).containsExactly(FACE);
        assertThat(looks).hasValue(1);
        faces.of(still("b"));
        assertThat(looks).hasValue(2);
    }

    @Test
    void aNetworkThatDoesNotRunFindsNoneAndStopsNothing() throws IOException {
        ModelFolder models = new ModelFolder(folder);
        Files.writeString(models.farFaces(), "no network");
        Files.writeString(models.nearFaces(), "no network");
        assertThat(with(new FaceNetworks(models)).of(still("a"))).isEmpty();
    }
}
