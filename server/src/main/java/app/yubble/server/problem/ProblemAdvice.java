package app.yubble.server.problem;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.media.recipe.BadRecipeException;
import java.io.IOException;
import java.net.URI;
import java.sql.SQLException;
import org.jobrunr.storage.StorageException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.OptimisticLockingFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.util.unit.DataSize;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** One shape for every fault. {@code type} tells them apart for programs, {@code detail} for people. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    static final String DATABASE_AWAY = "The database does not answer. Nothing is lost; try again.";

    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    private final DataSize uploadLimit;
    private final SecurityLog log;

    ProblemAdvice(@Value("${spring.servlet.multipart.max-file-size}") DataSize uploadLimit, SecurityLog log) {
        this.uploadLimit = uploadLimit;
        this.log = log;
    }

    @ExceptionHandler
    ProblemDetail notFound(NotFoundException fault) {
        log.note(SecurityLog.Event.NOT_THERE, String.valueOf(fault.getMessage()));
        return problem(HttpStatus.NOT_FOUND, "not-found", fault.getMessage());
    }

    @ExceptionHandler({ConflictException.class, OptimisticLockingFailureException.class})
    ProblemDetail conflict(RuntimeException fault) {
        @Nullable
        String detail = fault instanceof ConflictException
                ? fault.getMessage()
                : "This was changed in the meantime, in another tab or by someone else.";
        return problem(HttpStatus.CONFLICT, "conflict", detail);
    }

    @ExceptionHandler
    ProblemDetail tooOften(TooOftenException fault) {
        log.note(SecurityLog.Event.LIMITED, String.valueOf(fault.getMessage()));
        return problem(HttpStatus.TOO_MANY_REQUESTS, "too-often", fault.getMessage());
    }

    @ExceptionHandler
    ProblemDetail outdated(OutdatedException fault) {
        return problem(HttpStatus.PRECONDITION_FAILED, "outdated", fault.getMessage());
    }

    @ExceptionHandler({UnreadablePictureException.class, DepthShapeException.class, RefusedException.class})
    ProblemDetail refused(RuntimeException fault) {
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "refused", fault.getMessage());
    }

    @ExceptionHandler
    ProblemDetail badRecipe(BadRecipeException fault) {
        ProblemDetail problem = problem(HttpStatus.UNPROCESSABLE_CONTENT, "bad-recipe", fault.getMessage());
        problem.setProperty("faults", fault.faults());
        return problem;
    }

    /** What a recipe or a name in a request is refused for is found while the request is read. */
    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException fault, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        for (Throwable cause = fault.getCause(); cause != null; cause = cause.getCause()) {
            if (cause instanceof BadRecipeException recipe) {
                return answer(badRecipe(recipe));
            }
            if (cause instanceof RefusedException refused) {
                return answer(refused(refused));
            }
        }
        return super.handleHttpMessageNotReadable(fault, headers, status, request);
    }

    private static ResponseEntity<Object> answer(ProblemDetail problem) {
        return ResponseEntity.status(problem.getStatus()).body(problem);
    }

    /** Two who want the same name at once, and what was looked at before and is no longer so. */
    @ExceptionHandler
    ProblemDetail contradicted(DataIntegrityViolationException fault) {
        LOG.info("refused by the database: {}", fault.getMessage());
        return problem(
                HttpStatus.CONFLICT,
                "conflict",
                "Somebody else was a moment faster: this is there already, or what it belongs to is gone.");
    }

    @ExceptionHandler
    ProblemDetail full(FullDiskException fault) {
        LOG.error("{}", fault.getMessage());
        return problem(
                HttpStatus.INSUFFICIENT_STORAGE,
                "full",
                "There is no room left where files are stored. Nothing is lost; try again when there is.");
    }

    @ExceptionHandler
    ProblemDetail storeAway(StoreAwayException fault) {
        LOG.warn("{}", fault.getMessage());
        return problem(
                HttpStatus.SERVICE_UNAVAILABLE,
                "store",
                "The store for files does not answer. Nothing is lost; try again.");
    }

    /** A stored file that is not what was stored is no fault of the request; it says how it is mended. */
    @ExceptionHandler
    ProblemDetail damaged(DamagedFileException fault) {
        LOG.error("{}", fault.getMessage());
        return problem(HttpStatus.CONFLICT, "damaged", "Something cannot be read: " + fault.getMessage());
    }

    /** Whoever sent it has given up, or what lay between cut it off. */
    @ExceptionHandler
    ProblemDetail cutOff(MultipartException fault) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (each instanceof IOException io && FullDiskException.told(io) instanceof FullDiskException noRoom) {
                return full(noRoom);
            }
        }
        LOG.debug("an upload was cut off", fault);
        return problem(HttpStatus.BAD_REQUEST, "cut-off", "The upload did not come to its end. Send it again.");
    }

    /** What was sent is not said again, nor where in the program it went wrong: the log has that under the request's name. */
    @ExceptionHandler
    ProblemDetail unforeseen(RuntimeException fault) {
        for (Throwable each = fault.getCause(); each != null; each = each.getCause()) {
            if (each instanceof FullDiskException noRoom) {
                return full(noRoom);
            }
            if (each instanceof StoreAwayException away) {
                return storeAway(away);
            }
            if (each instanceof DamagedFileException file) {
                return damaged(file);
            }
        }
        LOG.error("a request failed", fault);
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "fault",
                "Something went wrong on the server. Its log tells what, under " + MDC.get(RequestNames.REQUEST) + ".");
    }

    @ExceptionHandler({DataAccessException.class, CannotCreateTransactionException.class, StorageException.class})
    ProblemDetail databaseGone(RuntimeException fault) {
        if (isTooLarge(fault)) {
            return problem(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "too-large",
                    "This is more than the database takes at once. Split the largest touch-ups.");
        }
        LOG.warn("database fault: {}", fault.getMessage());
        return problem(HttpStatus.SERVICE_UNAVAILABLE, "database", DATABASE_AWAY);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException fault, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return answer(problem(
                HttpStatus.CONTENT_TOO_LARGE,
                "too-large",
                "The file is over the limit of " + uploadLimit.toMegabytes() + " MB for one upload."));
    }

    private static boolean isTooLarge(Throwable fault) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (each instanceof SQLException
                    && String.valueOf(each.getMessage()).contains("max_allowed_packet")) {
                return true;
            }
        }
        return false;
    }

    private static ProblemDetail problem(HttpStatus status, String type, @Nullable String detail) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, detail);
        problem.setType(URI.create("/problems/" + type));
        return problem;
    }
}
