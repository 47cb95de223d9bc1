-- The spools that the owner gave to tools of the sliced file, as tool=spool pairs.
alter table plan add column gcode_tools varchar(1000) default '' not null;
