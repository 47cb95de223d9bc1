/**
 * What all pages share: who may talk to Tranche, how it says no, how numbers are read and written.
 */
package dev.tranche.app.web;
