package app.yubble.server.shoot;

import java.util.Map;
import java.util.TreeMap;

/**
 * Where a clip's depth lies: packs of frames by number, as hashes of stored files.
 *
 * @param settled packs whose frames all have their own depth
 * @param first packs of frames that were estimated alone, which stand for those around them until then
 */
record DepthIndex(Map<Integer, String> settled, Map<Integer, String> first) {
    static final DepthIndex NONE = new DepthIndex(Map.of(), Map.of());

    DepthIndex {
        settled = Map.copyOf(settled);
        first = Map.copyOf(first);
    }

    DepthIndex withSettled(int pack, String hash) {
        return new DepthIndex(with(settled, pack, hash), first);
    }

    DepthIndex withFirst(int pack, String hash) {
        return new DepthIndex(settled, with(first, pack, hash));
    }

    private static Map<Integer, String> with(Map<Integer, String> map, int pack, String hash) {
        Map<Integer, String> out = new TreeMap<>(map);
        out.put(pack, hash);
        return out;
    }
}
