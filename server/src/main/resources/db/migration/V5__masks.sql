-- Masks from files: who has brought one in may paint with it.
create table mask_file (
  id uuid primary key,
  account_id uuid not null,
  content_hash char(64) not null,
  unique key mask_file_owner (account_id, content_hash),
  foreign key (account_id) references account (id) on delete cascade
);

-- Places of the edge inspector that were looked at.
create table inspected_place (
  id uuid primary key,
  shot_id uuid not null,
  kind varchar(16) not null,
  x double not null,
  y double not null,
  verdict varchar(16) not null,
  key inspected_shot (shot_id),
  foreign key (shot_id) references shot (id) on delete cascade
);
