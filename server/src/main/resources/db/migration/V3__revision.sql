-- Counts the changes of a row, so that who watches it can tell a newer state from an older one.
alter table shot add column revision bigint not null default 0;
alter table delivery add column revision bigint not null default 0;
