package dev.tranche.app.api;

import dev.tranche.core.units.Refusal;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** How the interface says no: a problem (RFC 9457) whose detail is the sentence people would read. */
@RestControllerAdvice(basePackageClasses = Refused.class)
@Order(Ordered.HIGHEST_PRECEDENCE)
class Refused {
    @ExceptionHandler
    ProblemDetail refusal(Refusal refusal) {
        return ProblemDetail.forStatusAndDetail(HttpStatus.UNPROCESSABLE_ENTITY, refusal.getMessage());
    }
}
