package app.yubble.server.jobs;

import app.yubble.server.account.Limits;
import java.sql.Connection;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.jobrunr.jobs.Job;
import org.jobrunr.jobs.mappers.JobMapper;
import org.jobrunr.server.BackgroundJobServer;
import org.jobrunr.storage.StorageProviderUtils.DatabaseOptions;
import org.jobrunr.storage.navigation.AmountRequest;
import org.jobrunr.storage.sql.common.DatabaseCreator;
import org.jobrunr.storage.sql.common.JobTable;
import org.jobrunr.storage.sql.mariadb.MariaDbStorageProvider;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;

/** The job engine's tables, from which workers are given jobs in the order of {@link Round} instead of first come, first served. */
final class FairJobs extends MariaDbStorageProvider {
    /** Where the round is, in the table of who was served. */
    private static final UUID NOBODY = new UUID(0, 0);
    /** Jobs of one account and urgency that are looked at. */
    private static final int LOOKED_AT = 8;

    /** What was put into the queue by an older version says nothing of itself. */
    private static final Urgency UNKNOWN = Urgency.DELIVERY;

    private final Lanes lanes;
    private final Limits limits;
    private @Nullable JobMapper mapper;
    private final int workers;
    /** In the look that is under way. */
    private final ThreadLocal<List<UUID>> picked = ThreadLocal.withInitial(ArrayList::new);

    FairJobs(DataSource database, Lanes lanes, Limits limits, int workers) {
        super(database, DatabaseOptions.CREATE);
        this.lanes = lanes;
        this.limits = limits;
        this.workers = workers;
    }

    /** The tables are those of the class above, by whose place they are found. */
    @Override
    protected DatabaseCreator getDatabaseCreator() {
        return new DatabaseCreator(dataSource, tablePrefix, MariaDbStorageProvider.class);
    }

    @Override
    public void setJobMapper(JobMapper mapper) {
        super.setJobMapper(mapper);
        this.mapper = mapper;
    }

    @Override
    public List<Job> getJobsToProcess(BackgroundJobServer server, AmountRequest wanted) {
        if (server.getJobSteward().getOccupiedWorkerCount() == 0) {
            lanes.clear();
        }
        List<Job> given = super.getJobsToProcess(server, wanted);
        // What could not be taken after all is not in hand.
        Set<UUID> taken = given.stream().map(Job::getId).collect(Collectors.toSet());
        picked.get().stream().filter(job -> !taken.contains(job)).forEach(lanes::drop);
        picked.remove();
        return given;
    }

    @Override
    protected JobTable jobTable(Connection connection) {
        JobMapper own = Objects.requireNonNull(mapper);
        return new JobTable(connection, dialect, tablePrefix, own) {
            @Override
            public List<Job> selectJobsToProcess(AmountRequest wanted) {
                return inTurn(connection, wanted.getLimit(), own);
            }
        };
    }

    private List<Job> inTurn(Connection connection, int most, JobMapper own) {
        JdbcTemplate database = new JdbcTemplate(new SingleConnectionDataSource(connection, true));
        Round round = round(database);
        List<Job> out = new ArrayList<>();
        while (out.size() < most) {
            boolean others = round.hasLessUrgent();
            boolean drafts = round.hasDrafts();
            Round.Waiting next = round.next(urgency ->
                    // Nothing is made better while others have nothing.
                    !(urgency == Urgency.BETTER && drafts) && lanes.hasRoom(urgency, workers, others));
            if (next == null) {
                break;
            }
            // Not when another node has just taken it.
            if (isOurs(database, next.job())) {
                new JobTable(connection, dialect, tablePrefix, own)
                        .selectJobById(next.job())
                        .ifPresent(job -> {
                            out.add(job);
                            round.serve(next);
                            lanes.take(next.job(), next.urgency());
                            picked.get().add(next.job());
                        });
            }
        }
        store(database, round);
        return out;
    }

    private Round round(JdbcTemplate database) {
        List<Round.Waiting> waiting = database.query(
                "select id, account_id, urgency from (select j.id, t.account_id, t.urgency, j.createdAt,"
                        + " row_number() over (partition by t.account_id, t.urgency order by j.createdAt, j.id) place"
                        + " from jobrunr_jobs j left join job_turn t on t.job_id = j.id where j.state = 'ENQUEUED') w"
                        + " where place <= ? order by createdAt, id",
                (row, index) -> {
                    String account = row.getString(2);
                    return new Round.Waiting(
                            UUID.fromString(row.getString(1)),
                            account == null ? NOBODY : UUID.fromString(account),
                            account == null ? UNKNOWN : Urgency.valueOf(row.getString(3)));
                },
                LOOKED_AT);
        Map<UUID, Double> served = new HashMap<>();
        if (!waiting.isEmpty()) {
            database.query(
                    "select account_id, served from account_turn where account_id = ? or account_id in"
                            + " (select t.account_id from job_turn t join jobrunr_jobs j on j.id = t.job_id"
                            + " where j.state = 'ENQUEUED')",
                    row -> {
                        served.put(UUID.fromString(row.getString(1)), row.getDouble(2));
                    },
                    NOBODY.toString());
        }
        return new Round(waiting, served, served.getOrDefault(NOBODY, 0.0), limits::weight);
    }

    private static boolean isOurs(JdbcTemplate database, UUID job) {
        return !database.queryForList(
                        "select id from jobrunr_jobs where id = ? and state = 'ENQUEUED' for update skip locked",
                        String.class,
                        job.toString())
                .isEmpty();
    }

    /** In the same order everywhere, so that nodes do not lock each other out. */
    private static void store(JdbcTemplate database, Round round) {
        if (round.changed().isEmpty()) {
            return;
        }
        Map<String, Double> rows = new TreeMap<>();
        round.changed().forEach((account, served) -> rows.put(account.toString(), served));
        rows.put(NOBODY.toString(), round.at());
        rows.forEach((account, served) -> database.update(
                "insert into account_turn (account_id, served) values (?, ?)"
                        + " on duplicate key update served = greatest(served, values(served))",
                account,
                served));
    }
}
