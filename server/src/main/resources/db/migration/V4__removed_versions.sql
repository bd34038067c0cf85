-- A version that was removed can be brought back for a while.
alter table version add column removed timestamp(6) null;
