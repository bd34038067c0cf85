package app.yubble.server;

import app.yubble.core.subject.Quality;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Settings of an installation.
 *
 * @param data folder for files and, when it is managed, the database
 * @param mostPixels largest photo taken
 * @param demo whether the demo account and photos are put in
 * @param demoFolder where the demo photos are
 * @param openAccounts whether anybody who reaches the sign-in page may make an account
 * @param accountsPerHour as many may be made from one address
 * @param models folder of the networks
 * @param firstDepth how well the depth of a new shot is estimated at once; a draft takes a third of the time
 * @param clipDepth the same for a clip
 * @param mostClipBytes largest clip taken
 * @param mostClipSeconds longest clip taken
 * @param mostClipPixels of a frame
 * @param mostClipFrames of a clip
 * @param cacheBytes how much memory results of stages may hold
 * @param viewerBytes how much memory may hold what open pages looked at last
 * @param stageDiskBytes how much of the disk results of stages may hold; 0 keeps none
 * @param leastFreeBytes of the disk, kept for the database: with less no file is taken and none made
 * @param mostAccountBytes of files that one account may have
 * @param mostAccountShots as many photos and clips one account may have
 * @param mostAccountWork estimates and deliveries of one account that may wait at once
 * @param mostAccountClipSeconds of all clips of one account together
 * @param sessionDays after which a session ends, however often it is used
 * @param restAfter when nobody has asked for anything for so long, memory is given back
 * @param hosts names by which the server is known besides those of this machine for itself
 */
@ConfigurationProperties("yubble")
public record YubbleProperties(
        Path data,
        long mostPixels,
        boolean demo,
        @org.jspecify.annotations.Nullable Path demoFolder,
        boolean openAccounts,
        int accountsPerHour,
        Path models,
        Quality firstDepth,
        Quality clipDepth,
        long mostClipBytes,
        long mostClipSeconds,
        long mostClipPixels,
        int mostClipFrames,
        long cacheBytes,
        long viewerBytes,
        long stageDiskBytes,
        long leastFreeBytes,
        long mostAccountBytes,
        int mostAccountShots,
        int mostAccountWork,
        long mostAccountClipSeconds,
        int sessionDays,
        Duration restAfter,
        List<String> hosts) {}
