-- How a parcel leaves: by its sender's mail server, or as a file for one's own mail program.
alter table parcel
    add way text not null default 'mail' check (way in ('mail', 'file')),
    drop constraint parcel_state_check,
    add constraint parcel_state_check check (state in ('prepared', 'held', 'released', 'sending', 'sent', 'to-be-retried', 'refused', 'returned', 'unsure', 'exported'));
alter table dispatch_try drop constraint dispatch_try_ending_check;
alter table dispatch_try add constraint dispatch_try_ending_check
    check (ending in ('accepted', 'try-later', 'refused', 'unanswered', 'sign-in-refused', 'unreachable', 'stopped', 'exported'));
