create table account (
  id uuid not null primary key,
  name varchar(80) not null,
  password_hash varchar(100) not null,
  created timestamp(6) not null default current_timestamp(6),
  unique key account_name (name)
);

create table shoot (
  id uuid not null primary key,
  account_id uuid not null,
  name varchar(120) not null,
  created timestamp(6) not null default current_timestamp(6),
  key shoot_account (account_id, created),
  foreign key (account_id) references account (id) on delete cascade
);

create table shot (
  id uuid not null primary key,
  account_id uuid not null,
  shoot_id uuid not null,
  name varchar(255) not null,
  content_hash char(64) not null,
  format varchar(8) not null,
  width int not null,
  height int not null,
  bytes bigint not null,
  focal_length double null,
  sensor_width double null,
  f_number double null,
  distance double null,
  state varchar(16) not null,
  progress double not null,
  problem varchar(500) null,
  proxy_hash char(64) null,
  thumbnail_hash char(64) null,
  created timestamp(6) not null default current_timestamp(6),
  changed timestamp(6) not null,
  key shot_shoot (shoot_id, created),
  key shot_changed (account_id, changed),
  foreign key (account_id) references account (id) on delete cascade,
  foreign key (shoot_id) references shoot (id) on delete cascade
);

create table depth_map (
  id uuid not null primary key,
  shot_id uuid not null,
  source varchar(16) not null,
  origin varchar(255) not null,
  content_hash char(64) not null,
  width int not null,
  height int not null,
  created timestamp(6) not null default current_timestamp(6),
  unique key depth_map_source (shot_id, source),
  foreign key (shot_id) references shot (id) on delete cascade
);

create table version (
  id uuid not null primary key,
  shot_id uuid not null,
  name varchar(80) not null,
  position int not null,
  lock_version bigint not null,
  created timestamp(6) not null default current_timestamp(6),
  key version_shot (shot_id, created),
  foreign key (shot_id) references shot (id) on delete cascade
);

create table edit (
  id uuid not null primary key,
  version_id uuid not null,
  position int not null,
  name varchar(120) not null,
  recipe longtext not null,
  created timestamp(6) not null default current_timestamp(6),
  unique key edit_position (version_id, position),
  foreign key (version_id) references version (id) on delete cascade
);

create table delivery (
  id uuid not null primary key,
  account_id uuid not null,
  shot_id uuid not null,
  version_name varchar(80) not null,
  file_name varchar(255) not null,
  format varchar(16) not null,
  quality double not null,
  longest_side int null,
  recipe longtext not null,
  state varchar(16) not null,
  progress double not null,
  problem varchar(500) null,
  content_hash char(64) null,
  bytes bigint null,
  created timestamp(6) not null default current_timestamp(6),
  changed timestamp(6) not null,
  key delivery_account (account_id, created),
  key delivery_changed (account_id, changed),
  foreign key (account_id) references account (id) on delete cascade,
  foreign key (shot_id) references shot (id) on delete cascade
);

create table SPRING_SESSION (
  primary_id char(36) not null primary key,
  session_id char(36) not null,
  creation_time bigint not null,
  last_access_time bigint not null,
  max_inactive_interval int not null,
  expiry_time bigint not null,
  principal_name varchar(100),
  unique key spring_session_id (session_id),
  key session_expiry (expiry_time),
  key session_principal (principal_name)
);

create table SPRING_SESSION_ATTRIBUTES (
  session_primary_id char(36) not null,
  attribute_name varchar(200) not null,
  attribute_bytes blob not null,
  primary key (session_primary_id, attribute_name),
  foreign key (session_primary_id) references SPRING_SESSION (primary_id) on delete cascade
);
