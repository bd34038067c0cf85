package app.yubble.server.jobs;

import app.yubble.server.problem.StoreAwayException;
import java.sql.SQLException;
import org.hibernate.TransactionException;
import org.springframework.transaction.CannotCreateTransactionException;

/**
 * A job was broken off because its node stops, or because the database or the store was away for a moment. It is no fault of the work: the job
 * engine has it done again.
 */
public final class BrokenOffException extends RuntimeException {
    private static final long serialVersionUID = 1;
    /** The class of states that say that there is no connection. */
    private static final String NO_CONNECTION = "08";

    private BrokenOffException(Throwable cause) {
        super("broken off: " + cause.getMessage(), cause);
    }

    /**
     * To be called first by whoever catches what a job throws: the job engine interrupts the jobs of a node that stops.
     *
     * @throws BrokenOffException when it is no fault of the work
     */
    public static void rethrow(Throwable fault) {
        if (Thread.currentThread().isInterrupted() || isWithout(fault)) {
            throw new BrokenOffException(fault);
        }
    }

    private static boolean isWithout(Throwable fault) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            // Taking a transaction back on a connection that is gone tells no state.
            if (each instanceof CannotCreateTransactionException
                    || each instanceof TransactionException
                    || each instanceof StoreAwayException
                    || each instanceof SQLException told
                            && told.getSQLState() != null
                            && told.getSQLState().startsWith(NO_CONNECTION)) {
                return true;
            }
        }
        return false;
    }
}
