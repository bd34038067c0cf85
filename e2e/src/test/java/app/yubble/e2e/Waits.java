package app.yubble.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;

/** Waiting for states of a page; never for a time. */
final class Waits {
    private static final long LONGEST = 15_000_000_000L;
    private static final int BETWEEN_LOOKS = 50;
    private static final int LONGEST_PREVIEW = 60_000;

    private Waits() {}

    static void finalPreview(Page page) {
        page.locator("[data-test=preview-state][data-state=final]")
                .waitFor(new Locator.WaitForOptions().setTimeout(LONGEST_PREVIEW));
    }

    /** What happened has reached the server. */
    static void saved(Page page) {
        page.locator("[data-saving=saved]").waitFor();
    }

    /** What has changed is on screen: the frame after the next has begun. */
    static void painted(Page page) {
        page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))");
    }

    /** Nothing grows, fades or slides any more. */
    static void still(Page page) {
        page.waitForFunction("""
                () => document.getAnimations().every(each =>
                  each.playState !== 'running' || each.effect.getComputedTiming().iterations === Infinity)""");
    }

    /** Looks again and again until what is said of the page holds. */
    static void eventually(Page page, Runnable saying) {
        long deadline = System.nanoTime() + LONGEST;
        while (true) {
            try {
                saying.run();
                return;
            } catch (AssertionError not) {
                if (System.nanoTime() > deadline) {
                    throw not;
                }
            }
            page.waitForTimeout(BETWEEN_LOOKS);
        }
    }
}
