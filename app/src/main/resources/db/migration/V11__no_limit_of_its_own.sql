-- What a plan or a printer holds has no limit but the one its owner is told.
alter table revision alter column content character large object;
alter table printer alter column purges character large object;
