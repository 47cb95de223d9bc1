-- V3 (Java) has put what these held into revisions.
alter table printer drop column printer;
alter table printer drop column macro;
