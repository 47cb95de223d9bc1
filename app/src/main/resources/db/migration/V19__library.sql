-- What a list of plans is searched and sorted by, so that it opens none of them. Numbers of spools stand between commas.
alter table plan add column tags varchar(1000) default '' not null;
alter table plan add column printer bigint;
alter table plan add column spools varchar(1000);
alter table card add column swaps integer default 0 not null;
alter table card add column seconds double precision default 0 not null;
alter table card add column picture binary large object;
-- When an edit was made.
alter table revision add column made_at timestamp(9) with time zone;
