alter table account
  modify column folded_name varchar(255) character set utf8mb4 collate utf8mb4_bin not null,
  add unique key account_folded_name (folded_name);
