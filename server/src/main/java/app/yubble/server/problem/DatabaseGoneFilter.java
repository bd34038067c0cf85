package app.yubble.server.problem;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Tells a database that is away also where no controller is reached: sessions live in the database, and reading them comes
 * first.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseGoneFilter extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseGoneFilter.class);

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException fault) {
            if (response.isCommitted() || !fromDatabase(fault)) {
                throw fault;
            }
            LOG.warn("database fault: {}", fault.getMessage());
            response.reset();
            response.setStatus(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
            response.setContentType("application/problem+json");
            response.setCharacterEncoding(StandardCharsets.UTF_8.name());
            response.getWriter()
                    .write(
                            "{\"type\":\"/problems/database\",\"title\":\"Service Unavailable\",\"status\":503,\"detail\":\""
                                    + ProblemAdvice.DATABASE_AWAY + "\"}");
        }
    }

    private static boolean fromDatabase(Throwable fault) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (each instanceof DataAccessException
                    || each instanceof TransactionException
                    || each instanceof SQLException) {
                return true;
            }
        }
        return false;
    }
}
