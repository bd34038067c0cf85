package app.yubble.server.jobs;

import app.yubble.server.account.Limits;
import app.yubble.server.node.NodeClock;
import java.util.List;
import javax.sql.DataSource;
import org.jobrunr.jobs.mappers.JobMapper;
import org.jobrunr.server.BackgroundJobServer;
import org.jobrunr.storage.StorageProvider;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Sets the job engine up. */
@Configuration(proxyBeanMethods = false)
class JobsConfiguration {
    @Bean
    StorageProvider fairJobs(
            DataSource database,
            JobMapper mapper,
            Lanes lanes,
            Limits limits,
            NodeClock clock,
            @Value("${jobrunr.background-job-server.enabled}") boolean works,
            @Value("${jobrunr.background-job-server.worker-count}") int workers) {
        if (works) {
            clock.require();
        }
        FairJobs jobs = new FairJobs(database, lanes, limits, workers);
        jobs.setJobMapper(mapper);
        return jobs;
    }

    @Bean
    SmartInitializingSingleton lanesAreWatched(ObjectProvider<BackgroundJobServer> workers, Lanes lanes) {
        return () -> workers.ifAvailable(server -> server.setJobFilters(List.of(lanes)));
    }
}
