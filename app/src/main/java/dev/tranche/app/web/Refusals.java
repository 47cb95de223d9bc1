package dev.tranche.app.web;

import dev.tranche.app.history.StalePage;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.units.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.http.HttpStatus;
import org.springframework.ui.Model;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;

/** How pages say no: one sentence beside what was typed, which stays as it is. */
@ControllerAdvice
class Refusals {
    private final TrancheProperties properties;

    Refusals(TrancheProperties properties) {
        this.properties = properties;
    }

    @ExceptionHandler
    String refusal(Refusal refusal, HttpServletRequest request, HttpServletResponse response, Model model) {
        return say(refusal.getMessage(), HttpStatus.UNPROCESSABLE_ENTITY, request, response, model);
    }

    @ExceptionHandler
    String tooLarge(
            MaxUploadSizeExceededException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        String sentence = FileStore.tooLarge(properties.largestGcode()).getMessage();
        return say(sentence, HttpStatus.PAYLOAD_TOO_LARGE, request, response, model);
    }

    @ExceptionHandler
    String notANumber(
            MethodArgumentTypeMismatchException e,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        String sentence = needsNumber(e.getName());
        return say(sentence, HttpStatus.UNPROCESSABLE_ENTITY, request, response, model);
    }

    @ExceptionHandler
    String notFilledIn(BindException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        String field = e.getFieldErrors().stream()
                .findFirst()
                .map(FieldError::getField)
                .orElse("form");
        String sentence = needsNumber(field);
        return say(sentence, HttpStatus.UNPROCESSABLE_ENTITY, request, response, model);
    }

    @ExceptionHandler
    String missing(
            MissingServletRequestParameterException e,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        String sentence = "The field “" + e.getParameterName() + "” is empty; fill it in.";
        return say(sentence, HttpStatus.UNPROCESSABLE_ENTITY, request, response, model);
    }

    /** The page is out of date: it is replaced by what is true now, with the sentence on top. */
    @ExceptionHandler
    String stale(StalePage stale, HttpServletRequest request, HttpServletResponse response, Model model) {
        response.setHeader("HX-Trigger", "desk-stale");
        return say(stale.getMessage(), HttpStatus.CONFLICT, request, response, model);
    }

    private static String needsNumber(String field) {
        return "The field “" + field + "” needs a number; check what is in it.";
    }

    private static String say(
            String sentence, HttpStatus status, HttpServletRequest request, HttpServletResponse response, Model model) {
        response.setStatus(status.value());
        model.addAttribute("sentence", sentence);
        if (request.getHeader("HX-Request") == null) {
            return "web/refusal";
        }
        response.setHeader("HX-Retarget", "#notice");
        response.setHeader("HX-Reswap", "innerHTML");
        response.setHeader("HX-Reselect", ".notice");
        return "web/notice :: refusal";
    }
}
