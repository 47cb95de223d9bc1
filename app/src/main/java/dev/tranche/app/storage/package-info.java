/**
 * Where things are kept: files under the hash of their content, the core's values as JSON.
 */
package dev.tranche.app.storage;
