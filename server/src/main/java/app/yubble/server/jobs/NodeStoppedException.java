package app.yubble.server.jobs;

/** A job was broken off because its node stops. It is no fault of the work: the job engine gives it to a node again. */
public final class NodeStoppedException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private NodeStoppedException(Throwable cause) {
        super("the node stops", cause);
    }

    /**
     * To be called first by whoever catches what a job throws: the job engine interrupts the jobs of a node that stops.
     *
     * @throws NodeStoppedException when that is so
     */
    public static void rethrow(Throwable fault) {
        if (Thread.currentThread().isInterrupted()) {
            throw new NodeStoppedException(fault);
        }
    }
}
