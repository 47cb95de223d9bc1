package dev.tranche.app.api;

import dev.tranche.app.history.Broken;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;

/** How the interface says no: a problem (RFC 9457) whose detail is the sentence people would read. */
@RestControllerAdvice(basePackageClasses = Refused.class)
@Order(Ordered.HIGHEST_PRECEDENCE)
class Refused {
    @ExceptionHandler
    ProblemDetail refusal(Refusal refusal) {
        return problem(refusal.getMessage());
    }

    /** What stops a hand-off is told one by one, so that a program can mend it, or have it accepted. */
    @ExceptionHandler
    ProblemDetail notReady(NotReady stopped) {
        ProblemDetail problem = problem(stopped.getMessage());
        problem.setTitle("Not ready to hand off");
        problem.setProperty(
                "findings",
                stopped.findings().stream().map(LedgerAnswer::finding).toList());
        return problem;
    }

    @ExceptionHandler
    ProblemDetail broken(Broken broken) {
        return problem(broken.getMessage());
    }

    @ExceptionHandler
    ProblemDetail notANumber(MethodArgumentTypeMismatchException e) {
        return problem("“" + Words.quoted(String.valueOf(e.getValue())) + "” is not what the field “" + e.getName()
                + "” takes; see /api for what does.");
    }

    @ExceptionHandler({MissingServletRequestPartException.class, MissingServletRequestParameterException.class})
    ProblemDetail missing(Exception e) {
        String name = e instanceof MissingServletRequestPartException part
                ? part.getRequestPartName()
                : ((MissingServletRequestParameterException) e).getParameterName();
        return problem("The field “" + name + "” is missing; see /api for what is to be sent.");
    }

    @ExceptionHandler
    ProblemDetail noParts(MultipartException e) {
        return problem(
                e.getCause() == null
                        ? "What is sent here has parts (multipart/form-data); see /api for which."
                        : "What was sent did not arrive whole; send it again.");
    }

    @ExceptionHandler
    ProblemDetail noMemory(OutOfMemoryError e) {
        return ProblemDetail.forStatusAndDetail(HttpStatus.INSUFFICIENT_STORAGE, Jobs.NO_MEMORY);
    }

    private static ProblemDetail problem(String sentence) {
        return ProblemDetail.forStatusAndDetail(HttpStatus.UNPROCESSABLE_ENTITY, sentence);
    }
}
