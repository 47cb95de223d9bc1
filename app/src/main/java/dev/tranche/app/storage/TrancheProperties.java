package dev.tranche.app.storage;

import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;

/**
 * What can be set from outside.
 *
 * @param data folder for the database and the files people give
 * @param largestModel a model above it is refused
 * @param largestGcode likewise
 * @param largestTotal of all files that are kept
 * @param currency three letters, as figures show it
 * @param password asked for on every page if set; needed for any address but this machine's
 */
@ConfigurationProperties("tranche")
public record TrancheProperties(
        Path data,
        @DefaultValue("256MB") DataSize largestModel,
        @DefaultValue("1GB") DataSize largestGcode,
        @DefaultValue("20GB") DataSize largestTotal,
        @DefaultValue("EUR") String currency,
        @DefaultValue("") String password) {}
