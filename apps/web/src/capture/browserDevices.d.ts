/// <reference types="web-bluetooth" />
/// <reference types="w3c-web-serial" />
