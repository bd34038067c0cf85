-- What nobody works on any more is looked for every minute.
alter table shot add key shot_state (state, changed);
alter table delivery add key delivery_state (state, changed);
