-- What becomes of the stops of the sliced file, as index=choice pairs, and the findings its owner accepts, by their keys.
alter table plan add column gcode_stops varchar(20000) default '' not null;
alter table plan add column gcode_accepted varchar(4000) default '' not null;
alter table plan alter column gcode_tools set data type varchar(4000);
