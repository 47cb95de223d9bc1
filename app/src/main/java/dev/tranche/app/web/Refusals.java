package dev.tranche.app.web;

import dev.tranche.app.history.Broken;
import dev.tranche.app.history.StalePage;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.storage.Connections;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Room;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpStatus;
import org.springframework.transaction.TransactionException;
import org.springframework.ui.Model;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;

/** How pages say no: one sentence beside what was typed, which stays as it is. */
@ControllerAdvice
class Refusals {
    private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);

    private final TrancheProperties properties;
    private final Room room;
    private final Connections storage;

    Refusals(TrancheProperties properties, Room room, Connections storage) {
        this.properties = properties;
        this.room = room;
        this.storage = storage;
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
        return say(
                unfit(e.getName(), Optional.ofNullable(e.getRequiredType())),
                HttpStatus.UNPROCESSABLE_ENTITY,
                request,
                response,
                model);
    }

    @ExceptionHandler
    String notFilledIn(BindException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        String field = e.getFieldErrors().stream()
                .findFirst()
                .map(FieldError::getField)
                .orElse("form");
        String sentence = unfit(field, Optional.ofNullable(e.getFieldType(field)));
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

    /** What takes a file was sent none, or not all of it. */
    @ExceptionHandler({MultipartException.class, MissingServletRequestPartException.class})
    String noFile(Exception e, HttpServletRequest request, HttpServletResponse response, Model model) {
        String sentence = e.getCause() == null
                ? "No file came with this; choose one, and send it again."
                : room.sentence(Math.max(0, request.getContentLengthLong()))
                        .orElse("The file did not arrive whole; send it again.");
        return say(sentence, HttpStatus.UNPROCESSABLE_ENTITY, request, response, model);
    }

    /** The page is out of date: it is replaced by what is true now, with the sentence on top. */
    @ExceptionHandler
    String stale(StalePage stale, HttpServletRequest request, HttpServletResponse response, Model model) {
        response.setHeader("HX-Trigger", "desk-stale");
        return say(stale.getMessage(), HttpStatus.CONFLICT, request, response, model);
    }

    /** One plan or printer cannot be shown as it is; its own page says so and offers the way back. */
    @ExceptionHandler
    String broken(Broken broken, HttpServletRequest request, HttpServletResponse response, Model model) {
        String page = "/" + broken.what() + "s/" + broken.id();
        if (request.getHeader("HX-Request") != null) {
            response.setHeader("HX-Redirect", page);
            return "web/notice :: nothing";
        }
        response.setStatus(HttpStatus.UNPROCESSABLE_ENTITY.value());
        model.addAttribute("broken", broken);
        model.addAttribute("page", page);
        model.addAttribute("elsewhere", !request.getRequestURI().startsWith(page));
        return "web/broken";
    }

    /** The database could not write, as a rule since the disk is full; what was asked for was not done. */
    @ExceptionHandler({DataAccessException.class, TransactionException.class})
    String notStored(RuntimeException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        LOG.error("The database did not answer", e);
        storage.reconnect();
        String sentence = room.sentence()
                .orElse(
                        "Tranche could not reach its database; nothing was changed. Do it again, and look at the log if it goes on.");
        return say(sentence, HttpStatus.INSUFFICIENT_STORAGE, request, response, model);
    }

    @ExceptionHandler
    String noMemory(OutOfMemoryError e, HttpServletRequest request, HttpServletResponse response, Model model) {
        LOG.error("Too little memory for {}", request.getRequestURI(), e);
        return say(Jobs.NO_MEMORY, HttpStatus.INSUFFICIENT_STORAGE, request, response, model);
    }

    /** @param type of what the field takes, if it is known */
    private static String unfit(String field, Optional<Class<?>> type) {
        return type.filter(Class::isEnum)
                .map(t -> Stream.of(t.getEnumConstants()).map(Object::toString).collect(Collectors.joining(", ")))
                .map(choices -> "The field “" + field + "” takes one of " + choices + "; choose one.")
                .orElse("The field “" + field + "” needs a number; check what is in it.");
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
