package app.yubble.server.shoot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthPack;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

/** Depth of frames that were estimated alone, as it is stored while a clip is estimated. */
class ClipDepthsTest {
    private final Map<String, byte[]> files = new HashMap<>();
    private final List<DepthIndex> indices = new ArrayList<>();

    private ClipDepths.Running running() {
        Shot shot = mock(Shot.class);
        when(shot.id()).thenReturn(UUID.randomUUID());
        ClipSheet sheet = mock(ClipSheet.class);
        when(sheet.frames()).thenReturn(240);
        ClipFiles clips = mock(ClipFiles.class);
        when(clips.sheet(shot)).thenReturn(sheet);
        when(clips.put(any(byte[].class))).thenAnswer(call -> {
            String name = "file" + files.size();
            files.put(name, call.getArgument(0));
            return name;
        });
        when(clips.put(any(DepthIndex.class))).thenAnswer(call -> {
            indices.add(call.getArgument(0));
            return "index";
        });
        DepthMaps maps = mock(DepthMaps.class);
        when(maps.putOfClip(any(), any(), any(), any())).thenReturn(true);
        return new ClipDepths(maps, clips).begin(shot, UUID.randomUUID(), "test", Quality.DRAFT);
    }

    private Map<Integer, DepthEstimate> stored(int pack) {
        String name = indices.get(indices.size() - 1).first().get(pack);
        return name == null ? Map.of() : DepthPack.read(files.get(name));
    }

    @Test
    void aFrameOutOfTurnIsThereAtOnceAndTakesNothingAway() {
        ClipDepths.Running running = running();
        DepthEstimate estimate = DepthEstimate.of(Plane.filled(new Size(16, 9), 0.5f));
        for (int frame : new int[] {0, 5, 10}) {
            running.first(frame, estimate);
        }
        running.first(120, estimate);
        assertThat(stored(5)).containsOnlyKeys(120);
        for (int frame : new int[] {15, 20, 25, 30, 35, 40}) {
            running.first(frame, estimate);
        }
        assertThat(stored(0)).containsOnlyKeys(0, 5, 10, 15, 20);
        assertThat(stored(1)).containsKeys(25, 30);
        assertThat(stored(5)).containsOnlyKeys(120);
    }
}
