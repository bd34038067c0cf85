package app.yubble.server.jobs;

import app.yubble.server.node.NodeClock;
import app.yubble.server.node.NodeTable;
import org.jobrunr.server.BackgroundJobServer;
import org.jobrunr.storage.StorageException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;

/** Says every few seconds that this node is there and how it is. Its workers stop while its clock is wrong. */
@Component
class NodeWatch implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(NodeWatch.class);

    private final NodeTable nodes;
    private final NodeClock clock;
    private final ObjectProvider<BackgroundJobServer> workers;
    private volatile boolean stopping;
    private String told = "";

    NodeWatch(NodeTable nodes, NodeClock clock, ObjectProvider<BackgroundJobServer> workers) {
        this.nodes = nodes;
        this.clock = clock;
        this.workers = workers;
    }

    @Scheduled(fixedDelay = 5000)
    void look() {
        if (stopping) {
            return;
        }
        try {
            String problem = clock.problem();
            if (!problem.equals(told) && !problem.isEmpty()) {
                LOG.error("{}", problem);
            }
            told = problem;
            workers.ifAvailable(server -> {
                if (!problem.isEmpty() && server.isRunning()) {
                    server.stop();
                }
            });
            nodes.tell(problem.isEmpty() ? NodeTable.State.READY : NodeTable.State.TROUBLED, problem);
        } catch (DataAccessException | CannotCreateTransactionException | StorageException noDatabase) {
            LOG.debug("nobody is told of this node while the database is away");
        }
    }

    /** Before anything else stops. */
    @EventListener(ContextClosedEvent.class)
    @Order(0)
    void stop() {
        stopping = true;
        try {
            nodes.tell(NodeTable.State.DRAINING, "");
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("nobody is told that this node stops");
        }
    }

    /** After all work has been given back. */
    @Override
    public void destroy() {
        try {
            nodes.leave();
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("nobody is told that this node has stopped");
        }
    }
}
