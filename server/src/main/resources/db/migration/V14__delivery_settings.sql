-- How a delivery is written, which were asked for together, and a small picture of the result.
alter table delivery
  modify column format varchar(24) not null,
  add column halves_colour boolean not null default false,
  add column space varchar(16) not null default 'SOURCE',
  add column keeps_place boolean not null default true,
  add column sharpening double not null default 0,
  add column batch uuid null,
  add column thumbnail_hash char(64) null,
  add key delivery_batch (account_id, batch);

-- Settings under a name, for the next time.
create table delivery_preset (
  id uuid not null primary key,
  account_id uuid not null,
  name varchar(60) not null,
  pattern varchar(120) not null,
  settings longtext not null,
  unique key delivery_preset_name (account_id, name),
  foreign key (account_id) references account (id) on delete cascade
);
