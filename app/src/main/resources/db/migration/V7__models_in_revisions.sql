-- V6 (Java) has put what these held into revisions.
alter table plan drop column model_hash;
alter table plan drop column model_name;
alter table plan drop column model_size;
-- How thick a plastic has to be to hide what lies under it, mm.
alter table spool add column cover_depth double precision default 0.8 not null;
