package app.yubble.server.database;

import java.lang.reflect.Method;
import java.sql.SQLException;
import java.util.Set;
import org.aopalliance.intercept.MethodInterceptor;
import org.aopalliance.intercept.MethodInvocation;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.aop.ProxyMethodInvocation;
import org.springframework.aop.support.DefaultPointcutAdvisor;
import org.springframework.aop.support.StaticMethodMatcherPointcut;
import org.springframework.beans.factory.config.BeanDefinition;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Role;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Transactions that stood in each other's way: the database ends one of them, which says nothing about what was asked for, so it is
 * tried again from its beginning.
 */
@Configuration(proxyBeanMethods = false)
@Role(BeanDefinition.ROLE_INFRASTRUCTURE)
class TriedAgain implements MethodInterceptor {
    private static final Logger LOG = LoggerFactory.getLogger(TriedAgain.class);
    /** A deadlock, and a row that has changed since the transaction's first look. */
    private static final Set<Integer> COLLISIONS = Set.of(1213, 1020);

    private static final int MOST_TRIES = 4;
    /** Milliseconds to wait after the first, more after the others. */
    private static final long WAIT = 20;

    /** Made by the framework. */
    TriedAgain() {}

    @Bean
    @Role(BeanDefinition.ROLE_INFRASTRUCTURE)
    static DefaultPointcutAdvisor collisionsAreTriedAgain() {
        DefaultPointcutAdvisor advisor = new DefaultPointcutAdvisor(
                new StaticMethodMatcherPointcut() {
                    @Override
                    public boolean matches(Method method, Class<?> of) {
                        return AnnotatedElementUtils.hasAnnotation(method, Transactional.class);
                    }
                },
                new TriedAgain());
        // Around the transaction, which comes last.
        advisor.setOrder(Ordered.LOWEST_PRECEDENCE - 1);
        return advisor;
    }

    @Override
    public @Nullable Object invoke(MethodInvocation invocation) throws Throwable {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            // Whoever began it begins again.
            return invocation.proceed();
        }
        for (int tries = 1; ; tries++) {
            try {
                return ((ProxyMethodInvocation) invocation).invocableClone().proceed();
            } catch (RuntimeException fault) {
                if (tries == MOST_TRIES || !isCollision(fault)) {
                    throw fault;
                }
                LOG.debug("{} collided with another transaction and is tried again", invocation.getMethod());
                Thread.sleep(WAIT * tries);
            }
        }
    }

    private static boolean isCollision(Throwable fault) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (each instanceof SQLException told && COLLISIONS.contains(told.getErrorCode())) {
                return true;
            }
        }
        return false;
    }
}
