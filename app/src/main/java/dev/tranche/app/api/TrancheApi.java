package dev.tranche.app.api;

import dev.tranche.app.handoff.GcodeFiles;
import dev.tranche.app.run.Rehearsals;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.web.Attachment;
import dev.tranche.core.check.Finding;
import io.swagger.v3.oas.annotations.OpenAPIDefinition;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.info.Info;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** What programs may ask of Tranche. */
@RestController
@RequestMapping("/api/v1")
@OpenAPIDefinition(
        info =
                @Info(
                        title = "Tranche",
                        version = "1",
                        description =
                                "Send a model or a plan file and get its ledger; send a plan file and sliced G-code and get the G-code with swaps. Nothing that is sent is kept."))
class TrancheApi {
    private final Attempt attempt;
    private final GcodeFiles gcodeFiles;
    private final Rehearsals rehearsals;
    private final Settings settings;

    TrancheApi(Attempt attempt, GcodeFiles gcodeFiles, Settings settings, Rehearsals rehearsals) {
        this.rehearsals = rehearsals;
        this.attempt = attempt;
        this.gcodeFiles = gcodeFiles;
        this.settings = settings;
    }

    @Operation(summary = "The ledger of a plan file, or of a model in the colours given")
    @ApiResponse(responseCode = "200", description = "all figures, with their parts")
    @ApiResponse(
            responseCode = "422",
            description = "what was sent cannot be used; detail says why",
            content = @Content(schema = @Schema(implementation = ProblemDetail.class)))
    @PostMapping(path = "/ledger", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    LedgerAnswer ledger(
            @Parameter(
                            description =
                                    "3MF, OBJ, STL, PLY, AMF, glTF, or a plan file; for a plan file nothing else counts")
                    @RequestPart
                    MultipartFile file,
            @Parameter(description = "sliced G-code of it, for its times") @RequestPart(required = false)
                    MultipartFile gcode,
            @Parameter(description = "first-layer height, mm") @RequestParam(required = false) String first,
            @Parameter(description = "layer height, mm") @RequestParam(required = false) String layer,
            @Parameter(
                            description =
                                    "where colours start: height or layer=spool on the shelf, such as 2.0=Chalk or L41=Chalk")
                    @RequestParam(required = false)
                    List<String> colours,
            @Parameter(description = "name of a printer") @RequestParam(required = false) String printer,
            @Parameter(description = "on the plate") @RequestParam(required = false) Integer copies) {
        String currency = settings.now().currency();
        return attempt.look(
                file,
                new Attempt.Wishes(first, layer, colours, printer, copies),
                gcode,
                List.of(),
                work -> LedgerAnswer.of(work, currency));
    }

    @Operation(summary = "What comes out when a plan file's print is rehearsed on the simulated printer")
    @ApiResponse(responseCode = "200", description = "stops, layers beside the plan, and what went wrong")
    @ApiResponse(
            responseCode = "422",
            description = "what was sent cannot be used, or cannot be handed off; detail says why",
            content = @Content(schema = @Schema(implementation = ProblemDetail.class)))
    @PostMapping(path = "/rehearsal", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    RehearsalAnswer rehearsal(
            @Parameter(description = "plan file") @RequestPart MultipartFile plan,
            @Parameter(description = "sliced G-code of its model") @RequestPart MultipartFile gcode,
            @Parameter(description = "keys of findings that may be accepted and are") @RequestParam(required = false)
                    List<String> accept,
            @Parameter(description = "spools put in instead of the planned ones: swap=spool, such as 2=Chalk")
                    @RequestParam(required = false)
                    List<String> puts) {
        return attempt.look(plan, Attempt.Wishes.NONE, gcode, accept == null ? List.of() : accept, work -> {
            List<Finding> stops = work.obstacles();
            if (!stops.isEmpty()) {
                throw new NotReady(stops);
            }
            return RehearsalAnswer.of(
                    work, rehearsals.now(work, RehearsalAnswer.setup(work, puts == null ? List.of() : puts)));
        });
    }

    @Operation(summary = "Sliced G-code with the swaps of a plan file written in")
    @ApiResponse(
            responseCode = "200",
            description = "the file with swaps",
            content = @Content(mediaType = Attachment.GCODE, schema = @Schema(type = "string", format = "binary")))
    @ApiResponse(
            responseCode = "422",
            description =
                    "what was sent cannot be used, or plan and file contradict each other; detail says why, and findings tell what stops it one by one",
            content = @Content(schema = @Schema(implementation = ProblemDetail.class)))
    @PostMapping(path = "/gcode", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    void gcode(
            @Parameter(description = "plan file") @RequestPart MultipartFile plan,
            @Parameter(description = "sliced G-code of its model") @RequestPart MultipartFile gcode,
            @Parameter(
                            description =
                                    "keys of findings that may be accepted and are, such as stops-in-file; a finding says what accepting it means")
                    @RequestParam(required = false)
                    List<String> accept,
            HttpServletResponse response) {
        attempt.look(plan, Attempt.Wishes.NONE, gcode, accept == null ? List.of() : accept, work -> {
            List<Finding> stops = work.obstacles();
            if (!stops.isEmpty()) {
                throw new NotReady(stops);
            }
            gcodeFiles.withSwaps(work).send(response, Attachment.GCODE);
            return null;
        });
    }
}
